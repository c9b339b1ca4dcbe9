import { Pipe, type PipeTransform } from '@angular/core';
import { labelOf, type FieldName } from '@each-bolt/core/record';
import { ABSENT, fixed, READ_IN, readAs, unitWord } from '@each-bolt/core/shared';

/** Kilograms or pounds with three decimals, or the sign for absent. */
@Pipe({ name: 'ebMass' })
export class MassPipe implements PipeTransform {
  transform(massKg: number | null | undefined): string {
    return massKg === null || massKg === undefined ? ABSENT : fixed(readAs(READ_IN.kg, massKg), 3);
  }
}

/** An amount with two decimals, or the sign for absent. The currency and basis stand with the column or figure. */
@Pipe({ name: 'ebMoney' })
export class MoneyPipe implements PipeTransform {
  transform(amount: number | null | undefined): string {
    return amount === null || amount === undefined ? ABSENT : fixed(amount, 2);
  }
}

/** A whole number, or the sign for absent. */
@Pipe({ name: 'ebCount' })
export class CountPipe implements PipeTransform {
  transform(count: number | null | undefined): string {
    return count === null || count === undefined ? ABSENT : fixed(count, 0);
  }
}

/** The word of a unit under the units that were chosen: `{{ 'kg' | ebUnit }}`. */
@Pipe({ name: 'ebUnit' })
export class UnitPipe implements PipeTransform {
  transform(metric: string): string {
    return unitWord(metric);
  }
}

/** The label of a declared field: `{{ 'rig.name' | ebField }}`. */
@Pipe({ name: 'ebField' })
export class FieldPipe implements PipeTransform {
  transform(name: FieldName): string {
    return labelOf(name);
  }
}
