export { BLANK, DOOR, LEFT, RIGHT, STUDY, pieceNamed, recordOf, teardown, testId } from '../../core/testing/teardown';
