import { DOCUMENT, Injectable, effect, inject, signal } from '@angular/core';

const KEY = 'each-bolt-letter-keys';

/** Whether single letters act as keys, by the person’s choice. Kept on this device. */
@Injectable({ providedIn: 'root' })
export class LetterKeys {
  private readonly storage = inject(DOCUMENT).defaultView?.localStorage;
  readonly on = signal(this.storage?.getItem(KEY) !== 'off');

  constructor() {
    effect(() => this.storage?.setItem(KEY, this.on() ? 'on' : 'off'));
  }
}
