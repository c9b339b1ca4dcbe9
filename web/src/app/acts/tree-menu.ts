import type { MenuItem } from 'primeng/api';
import type { TreeActs } from './tree-acts';

/** What can be done with the chosen parts, as a menu shows it. */
export const partItems = (acts: TreeActs): MenuItem[] => {
  const several = acts.parts().length > 1;
  return [
    { label: 'Move to …', command: () => acts.ask('move') },
    { label: 'Cut (Ctrl X)', command: () => acts.cutParts() },
    { label: 'Copy to another place …', command: () => acts.ask('copy') },
    { separator: true },
    { label: 'Make an assembly …', command: () => acts.ask('assemble') },
    ...(several ? [{ label: 'Merge into one line', command: () => void acts.merge() }] : []),
    ...(!several && (acts.parts()[0]?.quantity ?? 1) > 1 ? [{ label: 'Split the count …', command: () => acts.ask('split') }] : []),
    ...(acts.isAssembly() ? [{ label: 'Dissolve the assembly', command: () => void acts.dissolve() }] : []),
    { label: 'Give material, process, supplier …', command: () => acts.ask('give') },
    { separator: true },
    { label: several ? 'Delete parts …' : 'Delete part …', command: () => acts.ask('delete') },
  ];
};

/** What can be done with the chosen subsystem. */
export const subsystemItems = (acts: TreeActs): MenuItem[] => [
  { label: 'Rename …', command: () => acts.ask('rename subsystem') },
  { label: 'Move below another …', command: () => acts.ask('move subsystem') },
  { label: 'Merge into another …', command: () => acts.ask('merge subsystem') },
  { label: 'Delete, if nothing is in it', command: () => void acts.removeSubsystem() },
];
