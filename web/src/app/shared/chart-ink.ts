import { DOCUMENT, Injectable, inject } from '@angular/core';
import type { Theme } from './theme-service';

/** Colours a chart is drawn with, from the theme. */
export interface ChartInk {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly sheet: string;
  readonly dye: string;
  readonly amber: string;
  readonly red: string;
  /** hue of each vehicle by its place in the study */
  readonly vehicles: readonly string[];
}

const VEHICLES = 5;

/** Reads the colours of the theme from the style sheet, so that charts and screen never differ. */
@Injectable({ providedIn: 'root' })
export class ChartInkService {
  private readonly document = inject(DOCUMENT);

  /** Colours as they are under the theme; the class is set here too, since a chart may be drawn before the page is. */
  read(theme: Theme): ChartInk {
    const root = this.document.documentElement;
    root.classList.toggle('bay', theme === 'bay');
    const style = this.document.defaultView?.getComputedStyle(root);
    const colour = (name: string): string => style?.getPropertyValue(name).trim() ?? '';
    return {
      ink: colour('--ink'),
      soft: colour('--soft'),
      line: colour('--fine'),
      sheet: colour('--sheet'),
      dye: colour('--dye'),
      amber: colour('--amber-edge'),
      red: colour('--red'),
      vehicles: Array.from({ length: VEHICLES }, (_, i) => colour(`--vehicle-${i}`)),
    };
  }
}
