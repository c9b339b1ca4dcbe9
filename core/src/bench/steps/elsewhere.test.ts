import { DOOR, LEFT, RIGHT, recordOf, teardown, testId } from '../../../testing/teardown';
import { blank, type Session, type StudyRecord } from '../../record';
import { isElsewhere } from './elsewhere';

const WINDOW = { id: testId(700), version: 1, parentId: DOOR.id, sequence: 5, name: 'Window' };
const HEATER = { id: testId(701), version: 1, parentId: null, sequence: 6, name: 'Heater' };
const plain = recordOf(teardown('module\n  plate\n    clip'));
const RECORD: StudyRecord = { ...plain, subsystems: [...plain.subsystems, WINDOW, HEATER] };
const session = (subsystemId: string | null): Session => ({
  ...blank('session', {
    vehicleId: LEFT.id,
    sequence: 0,
    name: 'Door off',
    openedAt: '2026-06-01T08:00:00.000Z',
    pauseAfterS: 600,
  }),
  ...{ id: testId(702), version: 1, subsystemId },
});
const under = (subsystemId: string, vehicleId = LEFT.id) => ({ vehicleId, subsystemId, parentId: null });
const inside = (name: string) => ({ vehicleId: LEFT.id, subsystemId: null, parentId: RECORD.parts.find((p) => p.name === name)!.id });

describe('a line for another place than the open session', () => {
  it('is one for another vehicle, or for a subsystem beside that of the session', () => {
    expect(isElsewhere(RECORD, session(DOOR.id), under(DOOR.id, RIGHT.id))).toBe(true);
    expect(isElsewhere(RECORD, session(DOOR.id), under(HEATER.id))).toBe(true);
    expect(isElsewhere(RECORD, session(WINDOW.id), under(DOOR.id))).toBe(true);
  });
  it('is none for the subsystem of the session, one below it, or inside an assembly of it however deep', () => {
    expect(isElsewhere(RECORD, session(DOOR.id), under(DOOR.id))).toBe(false);
    expect(isElsewhere(RECORD, session(DOOR.id), under(WINDOW.id))).toBe(false);
    expect(isElsewhere(RECORD, session(DOOR.id), inside('module'))).toBe(false);
    expect(isElsewhere(RECORD, session(DOOR.id), inside('plate'))).toBe(false);
    expect(isElsewhere(RECORD, session(HEATER.id), inside('plate'))).toBe(true);
  });
  it('is none on the vehicle of a session that has no subsystem', () => {
    expect(isElsewhere(RECORD, session(null), under(HEATER.id))).toBe(false);
    expect(isElsewhere(RECORD, session(null), under(HEATER.id, RIGHT.id))).toBe(true);
  });
});
