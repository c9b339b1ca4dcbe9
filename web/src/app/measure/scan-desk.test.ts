import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import { Choose } from '../shared/choose';
import type { Place } from '@each-bolt/core/measure';
import { FULL_ROWS, ROW_ID } from '../../../../core/testing/rows';
import type { Picked } from './mesh-scene';
import type { MeasuredFile, MeshAnswer, MeshAsked } from './mesh-told';
import { MeshViewer, type ShownCut } from './mesh-viewer';
import { MeshWork } from './mesh-work';
import { ScanDesk } from './scan-desk';
import { TakeScan } from './take-scan';

// nothing is drawn here
jest.mock('./mesh-scene', () => ({ MeshScene: class {} }));

/** Stands where the picture is drawn, which a test without a screen cannot see. */
@Component({ selector: 'eb-mesh-viewer', template: '', changeDetection: ChangeDetectionStrategy.OnPush })
class NoPicture {
  readonly mesh = input<unknown>();
  readonly label = input('');
  readonly cut = input<ShownCut | null>(null);
  readonly marks = input<readonly (readonly number[])[]>([]);
  readonly colours = input<Float32Array | null>(null);
  readonly picked = output<Picked>();
}

/** Eight corners round a hole of radius 4, and as many a plate's width away; in the unit of the file. */
const ring = (cx: number, cy: number): number[] =>
  Array.from({ length: 8 }, (_, i) => [cx + 4 * Math.cos((i * Math.PI) / 4), cy + 4 * Math.sin((i * Math.PI) / 4), 2]).flat();
const positions = Float32Array.from([...ring(0, 0), ...ring(60, 25)]);
// each corner belongs to a triangle with its two neighbours; only corners matter here
const triangles = Uint32Array.from(
  [0, 8].flatMap((from) => Array.from({ length: 8 }, (_, i) => [from + i, from + ((i + 1) % 8), from + ((i + 2) % 8)]).flat()),
);
const file = { positions, triangles } as unknown as MeasuredFile;
const scan = { id: ROW_ID.scan, version: 1, ...FULL_ROWS.scan };

describe('a scan that is open', () => {
  let fixture: ComponentFixture<ScanDesk>;
  let viewer: NoPicture;
  let asked: MeshAsked[];
  let answers: ((what: MeshAsked) => MeshAnswer) | null;
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const measured = (): string => element().querySelector('[aria-label="Measured on the scan"]')?.textContent.trim() ?? '';
  const press = async (text: string): Promise<void> => {
    [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === text)!.click();
    await fixture.whenStable();
  };
  const choose = async (mode: string): Promise<void> => {
    [...element().querySelectorAll('label')]
      .find((l) => l.textContent.replace(/\s+/g, ' ').trim() === mode)!
      .querySelector('input')!
      .click();
    await fixture.whenStable();
  };
  const click = async (point: Place, triangle = 0): Promise<void> => {
    viewer.picked.emit({ point, triangle });
    await fixture.whenStable();
  };
  const pickView = async (label: string, value: string): Promise<void> => {
    fixture.debugElement
      .queryAll(By.directive(Choose))
      .find((field) => (field.componentInstance as Choose).label() === label)!
      .triggerEventHandler('valueChange', value);
    await fixture.whenStable();
  };

  beforeEach(async () => {
    asked = [];
    answers = null;
    TestBed.configureTestingModule({
      providers: [
        {
          provide: MeshWork,
          useValue: {
            ask: (what: MeshAsked) => {
              asked.push(what);
              return Promise.resolve(answers?.(what) ?? { kind: 'fault', message: 'not asked for' });
            },
          },
        },
        { provide: TakeScan, useValue: { file: () => Promise.resolve({ code: 'gone', message: 'The file is not here', issues: [] }) } },
      ],
    });
    TestBed.overrideComponent(ScanDesk, { remove: { imports: [MeshViewer] }, add: { imports: [NoPicture] } });
    fixture = TestBed.createComponent(ScanDesk);
    for (const [name, value] of Object.entries({
      file,
      unit: 'mm',
      name: 'bracket.stl',
      scan,
      others: [{ scan: { ...scan, id: 'other' }, word: 'other' }],
    }))
      fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    viewer = fixture.debugElement.query((d) => d.componentInstance instanceof NoPicture).componentInstance as NoPicture;
  });

  it('tells how far two points lie apart, in mm whatever the unit of the file, and begins again with the third', async () => {
    expect(measured()).toBe('click two points');
    await click([0, 0, 0]);
    expect(measured()).toBe('and the second point');
    await click([3, 4, 0]);
    expect(measured()).toBe('5.00 mm apart');
    fixture.componentRef.setInput('unit', 'in');
    await fixture.whenStable();
    expect(measured()).toBe('127.0 mm apart');
    await click([0, 0, 0]);
    expect(measured()).toBe('and the second point');
  });

  it('takes the corners nearest to the clicks as the rim of a hole, forgets one that went wrong, and keeps their middles', async () => {
    await choose('a hole, by three corners of its rim');
    const kept: (readonly Place[])[] = [];
    fixture.componentInstance.patterned.subscribe((places) => kept.push(places));
    const rim = async (cx: number, cy: number, from: number): Promise<void> => {
      // beside the first corner of triangles that lie round the hole
      for (const i of [0, 2, 5]) await click([cx + 4.3 * Math.cos((i * Math.PI) / 4), cy + 4.3 * Math.sin((i * Math.PI) / 4), 2], from + i);
    };
    expect(measured()).toBe('click 3 more on the rim');
    await rim(0, 0, 0);
    expect(measured()).toContain('hole 1: 8.00 mm wide');
    await click([64.2, 25, 2], 8);
    expect(measured()).toBe('click 2 more on the rim');
    await press('Forget hole 1');
    expect(measured()).toBe('click 3 more on the rim');
    await rim(0, 0, 0);
    await rim(60, 25, 8);
    await press('Keep the 2 holes as a hole pattern');
    expect(kept).toHaveLength(1);
    kept[0]!.forEach((place, i) => [[0, 0, 2], [60, 25, 2]][i]!.forEach((x, k) => expect(place[k]).toBeCloseTo(x, 5))); // prettier-ignore
    // what is kept is on the table no more
    expect(element().textContent).not.toContain('Forget hole');
  });

  it('says so when the three points are one and the same corner', async () => {
    await choose('a hole, by three corners of its rim');
    for (let n = 0; n < 3; n++) await click([4.2, 0, 2], 0);
    expect(element().querySelector('.fault')?.textContent).toContain('lie in a line');
  });

  it('asks for the wall behind a point, and says when nothing lies behind it', async () => {
    answers = () => ({ kind: 'wall', wall: { thickness: 2.5, onto: [0, 0, -0.5] } as never });
    await choose('the wall at a point');
    await click([0, 0, 2], 3);
    expect(asked).toEqual([{ kind: 'wall', triangle: 3, from: [0, 0, 2] }]);
    expect(measured()).toBe('wall 2.50 mm, straight through');
    answers = () => ({ kind: 'wall', wall: null });
    await click([0, 0, 2], 3);
    expect(measured()).toBe('nothing lies behind that point');
  });

  it('cuts where the plane stands, says when the scan is open there, and offers only closed cuts to be kept', async () => {
    const loop = [[0, 0], [10, 0], [10, 2], [0, 2]] as const; // prettier-ignore
    answers = () => ({ kind: 'sliced', loops: [loop], openLines: 0, right: [1, 0, 0], up: [0, 1, 0] });
    await pickView('Square to the plane', '0');
    // halfway between the ends of the scan, which are −4 and 64
    expect(asked.at(-1)).toEqual({ kind: 'slice', plane: { normal: [1, 0, 0], offset: expect.closeTo(30, 6) as number } });
    expect(element().textContent).toMatch(/x = 30\.0 mm\s*1 closed line/);
    const kept: { name: string; loops: unknown }[] = [];
    fixture.componentInstance.sectioned.subscribe((section) => kept.push(section));
    await press('Keep this section');
    expect(kept).toEqual([{ name: 'bracket at x = 30.0 mm', loops: [loop] }]);
    answers = () => ({ kind: 'sliced', loops: [], openLines: 2, right: [1, 0, 0], up: [0, 1, 0] });
    await pickView('Square to the plane', '1');
    expect(element().textContent).toContain('2 lines do not close: the scan is open there');
    expect([...element().querySelectorAll('button')].map((b) => b.textContent.trim())).not.toContain('Keep this section');
  });

  it('registered to one whose file is gone says so', async () => {
    await pickView('Scan to register it to', 'other');
    expect(element().querySelector('.fault')?.textContent).toBe('The file is not here');
  });
});
