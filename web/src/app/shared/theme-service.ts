import { DOCUMENT, Injectable, effect, inject, signal } from '@angular/core';

export type Theme = 'day' | 'bay';
const KEY = 'each-bolt-theme';

/** Day or bay: light paper or a dark workshop. Kept on this device. */
@Injectable({ providedIn: 'root' })
export class ThemeService {
  private readonly document = inject(DOCUMENT);
  readonly theme = signal<Theme>(this.document.defaultView?.localStorage.getItem(KEY) === 'bay' ? 'bay' : 'day');

  constructor() {
    effect(() => {
      this.document.documentElement.classList.toggle('bay', this.theme() === 'bay');
      this.document.defaultView?.localStorage.setItem(KEY, this.theme());
    });
  }

  switch(): void {
    this.theme.update((theme) => (theme === 'day' ? 'bay' : 'day'));
  }
}
