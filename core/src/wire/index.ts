export { COMMAND, type InstrumentCommand, NEW_INSTRUMENT, type NewInstrument, type Placed, PLACED } from './instruments';
export {
  CHOSEN_UNITS,
  CREDENTIALS,
  type DemoSignIn,
  FIRST_LEAD,
  type Me,
  NEW_PASSWORD,
  NEW_PERSON,
  type Person,
  RESET_PASSWORD,
  type SignedIn,
  type Standing,
} from './people';
export type { OrganisationRig, RecordedDay } from './plan';
export { type Refusal, REFUSAL, type ToldConflict } from './refusal';
export { addressOf, type AnsweredRoute, type AnswerOf, ANSWERS, type EventOf, EVENTS, type StreamRoute } from './routes';
export { type BroughtIn, type HeardChange, type Here, HERE_NOW, type OwnChange, type StudyLine, type ToldChange } from './studies';
