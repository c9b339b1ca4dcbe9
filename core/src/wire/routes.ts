import type { Schema } from 'yup';
import { DONE, answer, figure, listOf } from './answer';
import { INSTRUMENT_NOW } from './instruments';
import { ADDED_PERSON, ME, PERSON, SIGNED_IN } from './people';
import { EXPERIENCE, HELD_VEHICLE, ORGANISATION_RIG, RECORDED_DAY } from './plan';
import { BROUGHT_IN, HEARD_CHANGE, HERE, KEPT, KEPT_CHANGE, OWN_CHANGE, RECORD, STORED, STUDY_LINE, TOLD_CHANGE } from './studies';

/** What the server answers with, by route: every one that answers with JSON. */
export const ANSWERS = {
  'GET /api/me': ME,
  'POST /api/me/units': DONE,
  'POST /api/sign-in': SIGNED_IN,
  'POST /api/first-lead': SIGNED_IN,
  'POST /api/sign-out': DONE,
  'POST /api/password': DONE,
  'GET /api/people': listOf(PERSON),
  'POST /api/people': ADDED_PERSON,
  'POST /api/people/:person/password': DONE,
  'GET /api/studies': listOf(STUDY_LINE),
  'POST /api/archives': BROUGHT_IN,
  'GET /api/studies/:id': RECORD,
  'POST /api/studies/:id/changes': KEPT,
  'GET /api/studies/:id/changes': listOf(KEPT_CHANGE),
  'GET /api/studies/:id/changes/:change': KEPT_CHANGE,
  'GET /api/studies/:id/history': listOf(TOLD_CHANGE),
  'GET /api/studies/:id/mine': listOf(OWN_CHANGE),
  'POST /api/studies/:id/here': DONE,
  'GET /api/studies/:id/plan/experience': listOf(EXPERIENCE),
  'GET /api/studies/:id/plan/held-vehicles': listOf(HELD_VEHICLE),
  'GET /api/studies/:id/plan/recorded': listOf(RECORDED_DAY),
  'GET /api/studies/:id/plan/organisation-rigs': listOf(ORGANISATION_RIG),
  'PUT /api/studies/:id/files/:sha256': STORED,
  'GET /api/instruments': listOf(INSTRUMENT_NOW),
  'POST /api/instruments': DONE,
  'DELETE /api/instruments/:instrument': DONE,
  'POST /api/instruments/:instrument/commands': DONE,
  'POST /api/instruments/:instrument/place': DONE,
} as const;

export type AnsweredRoute = keyof typeof ANSWERS;
type Of<S> = S extends Schema<infer T> ? T : never;
export type AnswerOf<R extends AnsweredRoute> = Of<(typeof ANSWERS)[R]>;

/** What streams tell, by route and kind of event. */
export const EVENTS = {
  'GET /api/studies/:id/events': {
    change: HEARD_CHANGE,
    /** a change too large to be told to everybody; it is there to be fetched */
    large: answer<{ readonly revision: number }>({ revision: figure() }),
    here: listOf(HERE),
    /** taken off the study */
    off: DONE,
  },
  'GET /api/instruments/events': { all: listOf(INSTRUMENT_NOW), one: INSTRUMENT_NOW },
} as const;

export type StreamRoute = keyof typeof EVENTS;
type Told<E> = { readonly [K in keyof E]: { readonly kind: K; readonly told: Of<E[K]> } }[keyof E];
export type EventOf<R extends StreamRoute> = Told<(typeof EVENTS)[R]>;

/** The address of a route: the ids in its places, and what is asked behind it. */
export const addressOf = (
  route: string,
  places: Readonly<Record<string, string>> = {},
  asked: Readonly<Record<string, string>> = {},
): string => {
  const path = route.slice(route.indexOf(' ') + 1).replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(places[name] ?? ''));
  const query = new URLSearchParams(asked).toString();
  return query === '' ? path : `${path}?${query}`;
};
