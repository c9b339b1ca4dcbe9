export { BLANK, DOOR, LEFT, RIGHT, STUDY, partNamed, recordOf, teardown, testId } from '../../core/testing/teardown';
