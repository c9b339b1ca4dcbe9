import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { DataTable, SortHeading, TableFoot, TableHead, TableRow } from './data-table';

interface Line {
  readonly id: number;
  readonly name: string;
  readonly kg: number | null;
}

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DataTable, SortHeading, TableFoot, TableHead, TableRow],
  template: `<eb-table label="Lines" [find]="words">
    <ng-template ebHead>
      <tr>
        <th scope="col" [ebSort]="words">Name</th>
        <th scope="col" [ebSort]="mass">Mass</th>
      </tr>
    </ng-template>
    <ng-template [ebRow]="lines()" track="id" let-line let-i="index">
      <tr>
        <td>{{ i + 1 }} {{ line.name }}</td>
        <td><input [value]="line.kg ?? ''" /></td>
      </tr>
    </ng-template>
    <ng-template ebFoot>
      @if (lines().length === 0) {
        <tr>
          <td colspan="2">No line yet.</td>
        </tr>
      }
    </ng-template>
  </eb-table>`,
})
class Host {
  readonly lines = signal<readonly Line[]>([]);
  readonly words = ({ name }: Line): string => name;
  readonly mass = ({ kg }: Line): number | null => kg;
}

describe('a table', () => {
  let fixture: ComponentFixture<Host>;
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const names = (): readonly string[] => [...element().querySelectorAll('tbody td:first-child')].map((td) => td.textContent.trim());
  const show = (lines: readonly Line[]): void => {
    fixture.componentInstance.lines.set(lines);
    fixture.detectChanges();
  };
  const sort = (name: string): string | null => {
    const heading = [...element().querySelectorAll('th')].find((th) => th.textContent.trim() === name)!;
    heading.click();
    fixture.detectChanges();
    return heading.getAttribute('aria-sort');
  };
  const line = (id: number, name: string, kg: number | null = null): Line => ({ id, name, kg });

  beforeEach(() => {
    fixture = TestBed.createComponent(Host);
    fixture.detectChanges();
  });

  it('has its name, numbers its rows, and says below what to do where there are none', () => {
    expect([element().querySelector('table')?.getAttribute('aria-label'), element().querySelector('tfoot')?.textContent.trim()]).toEqual([
      'Lines',
      'No line yet.',
    ]);
    show([line(1, 'rail'), line(2, 'latch')]);
    expect([names(), element().querySelector('tfoot')?.textContent.trim() ?? '']).toEqual([['1 rail', '2 latch'], '']);
  });
  it('sorts up, down and back to the order of the record; what is not known comes last', () => {
    show([line(1, 'rail', 2), line(2, 'latch'), line(3, 'arm 10', 1), line(4, 'arm 9', 3)]);
    expect([sort('Mass'), names()]).toEqual(['ascending', ['1 arm 10', '2 rail', '3 arm 9', '4 latch']]);
    expect([sort('Mass'), names()]).toEqual(['descending', ['1 arm 9', '2 rail', '3 arm 10', '4 latch']]);
    expect([sort('Mass'), names()]).toEqual(['none', ['1 rail', '2 latch', '3 arm 10', '4 arm 9']]);
    // names with numbers in them go by the number
    expect([sort('Name'), names()]).toEqual(['ascending', ['1 arm 9', '2 arm 10', '3 latch', '4 rail']]);
  });
  it('is looked through by typing where it is long, and only there', () => {
    show(Array.from({ length: 12 }, (_, i) => line(i, `part ${i}`)));
    expect(element().querySelector('input[type=search]')).toBeNull();
    show([...Array.from({ length: 12 }, (_, i) => line(i, `part ${i}`)), line(12, 'Latch')]);
    const find = element().querySelector<HTMLInputElement>('input[type=search]')!;
    find.value = ' latch';
    find.dispatchEvent(new Event('input'));
    fixture.detectChanges();
    expect(names()).toEqual(['1 Latch']);
  });
  it('keeps the row that is being edited when the others change', () => {
    show([line(1, 'rail', 2), line(2, 'latch', 1)]);
    const edited = element().querySelectorAll<HTMLInputElement>('td input')[1]!;
    edited.value = '1.5';
    show([line(3, 'arm', 4), line(1, 'rail', 2), line(2, 'latch', 1)]);
    expect([...element().querySelectorAll<HTMLInputElement>('td input')].at(-1)).toBe(edited);
    expect(edited.value).toBe('1.5');
  });
});
