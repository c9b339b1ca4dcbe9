import { UNIT_SYSTEMS, oneOf, requiredText, shape, text, type UnitSystem } from '../shared';
import { ROLES, type Role } from '../record';
import { answer, listOf, orAbsent, orNull, wordOf, words, yesNo } from './answer';

const STANDINGS = ['lead', 'member'] as const;
export type Standing = (typeof STANDINGS)[number];

// —— asked ——

const login = (): ReturnType<typeof text> =>
  text('Sign-in name', 40).matches(/^[a-z0-9][a-z0-9._-]{1,39}$/, '${label} has 2 to 40 small letters, digits, points or dashes');
const password = (label = 'Password'): ReturnType<typeof text> => text(label, 1000);

export const CREDENTIALS = shape<{ login: string; password: string }>({ login: text('Sign-in name', 200), password: password() });
/** The first account of an organisation. */
export const FIRST_LEAD = shape<{ login: string; name: string; password: string }>({
  login: login(),
  name: requiredText('Name', 200),
  password: password(),
});
export const NEW_PERSON = shape<{ login: string; name: string; password: string; standing: Standing }>({
  login: login(),
  name: requiredText('Name', 200),
  password: password(),
  standing: oneOf('Standing', STANDINGS),
});
export const NEW_PASSWORD = shape<{ current: string; next: string }>({
  current: password('Password now'),
  next: password('New password'),
});
/** The units a person reads figures in, on every device. */
export const CHOSEN_UNITS = shape<{ units: UnitSystem }>({ units: oneOf('Units', UNIT_SYSTEMS) });
export const RESET_PASSWORD = shape<{ next: string }>({ next: password('New password') });

// —— answered ——

/** Somebody with an account; how they sign in is told to themselves and to leads of the organisation. */
export interface Person {
  readonly id: string;
  readonly name: string;
  readonly login?: string | undefined;
  readonly standing?: Standing | undefined;
  /** still on a password that came with the demo study */
  readonly demoPassword?: boolean | undefined;
}

export const PERSON = answer<Person>({
  id: words(),
  name: words(),
  login: orAbsent(words()),
  standing: orAbsent(wordOf(STANDINGS)),
  demoPassword: orAbsent(yesNo()),
});

export interface DemoSignIn {
  readonly login: string;
  readonly name: string;
  readonly role: Role;
  readonly password: string;
}

/** Somebody who signed in, with the key that seals what they leave unsent on the device and the units they chose; null when the server was not asked. */
export interface SignedIn {
  readonly person: Person;
  readonly seal: string | null;
  readonly units: UnitSystem | null;
}

/** Who is signed in, or what there is to sign in with. */
export interface Me {
  readonly person: Person | null;
  readonly seal: string | null;
  readonly units: UnitSystem | null;
  readonly firstRun: boolean;
  readonly demo: readonly DemoSignIn[];
}

export const ME = answer<Me>({
  person: orNull(PERSON),
  seal: orNull(words()),
  units: orNull(wordOf(UNIT_SYSTEMS)),
  firstRun: yesNo(),
  demo: listOf(answer<DemoSignIn>({ login: words(), name: words(), role: wordOf(ROLES), password: words() })),
});
export const SIGNED_IN = answer<SignedIn>({ person: PERSON, seal: orNull(words()), units: orNull(wordOf(UNIT_SYSTEMS)) });
export const ADDED_PERSON = answer<{ readonly person: Person }>({ person: PERSON });
