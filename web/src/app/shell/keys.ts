/** A key of our own: what is pressed and what it does, as the help shows it. */
export interface KeyHelp {
  readonly keys: readonly string[];
  readonly does: string;
}

export const KEY_GROUPS: readonly { readonly title: string; readonly keys: readonly KeyHelp[] }[] = [
  {
    title: 'Anywhere',
    keys: [
      { keys: ['p'], does: 'plan' },
      { keys: ['b'], does: 'bench' },
      { keys: ['m'], does: 'measure' },
      { keys: ['r'], does: 'reconcile' },
      { keys: ['c'], does: 'cost' },
      { keys: ['v'], does: 'compare vehicles' },
      { keys: ['/'], does: 'find a part, tag or word' },
      { keys: ['f'], does: 'fasteners in or out of the count' },
      { keys: ['a'], does: 'opened assemblies as parts or as one' },
      { keys: ['s'], does: 'fold the stack away or back' },
      { keys: ['d'], does: 'day or bay' },
      { keys: ['q'], does: 'attach a question or promise to what is chosen' },
      { keys: ['g'], does: 'all questions and promises' },
      { keys: ['w'], does: 'how do we know? from the figure of what is chosen down to its readings' },
      { keys: ['h'], does: 'history' },
      { keys: ['z'], does: 'undo what you did last' },
      { keys: ['Shift', 'z'], does: 'do it again' },
      { keys: ['n'], does: 'what was not kept, and why' },
      { keys: ['?'], does: 'this help' },
      { keys: ['Esc'], does: 'leave a field, close the card' },
    ],
  },
  {
    title: 'Where something does not close',
    keys: [
      { keys: ['1'], does: 'mend what is open as it is written out' },
      { keys: ['2'], does: 'explain why it may stay' },
      { keys: ['3'], does: 'ask somebody' },
    ],
  },
  {
    title: 'At the bench',
    keys: [
      { keys: ['l'], does: 'to the entry line' },
      { keys: ['Enter'], does: 'keep the line' },
      { keys: ['Alt', '1 … 9'], does: 'settle the first question with its choice 1 … 9' },
      { keys: ['Alt', '0'], does: 'drop the tool that the last removal took over from the one before' },
      { keys: ['Tab'], does: 'take the word that typing help offers; ↓ the next one' },
      { keys: ['↑'], does: 'in an empty line: the line kept before, to be varied' },
      { keys: ['F8'], does: 'take the reading of the chosen instrument' },
      { keys: ['Shift', 'F8'], does: 'the same, all of the part together' },
      { keys: ['x'], does: 'among the removals: it waited for the one before, or not' },
      { keys: ['j', 't'], does: 'among the removals: join with the one before, split the last part off' },
      { keys: ['e'], does: 'edit the part in the card' },
      { keys: ['y'], does: 'move the chosen parts to another place' },
      { keys: ['Ctrl', 'x'], does: 'cut the chosen parts; Ctrl V puts them into what is chosen then' },
      { keys: ['Ctrl', 'Space'], does: 'choose the part as well, beside others' },
      { keys: ['Del'], does: 'delete the chosen parts, after showing what goes with them' },
      { keys: ['o'], does: 'record inside the chosen part' },
      { keys: ['u'], does: 'record one level up' },
      { keys: ['i'], does: 'import a file of parts' },
      { keys: ['↑ ↓ ← →'], does: 'move in the tree, close and open' },
    ],
  },
];

/** True while typing goes into a field, so that single letters are text and not keys. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
    target.closest('[role=combobox], [role=listbox], .p-dialog') !== null);
