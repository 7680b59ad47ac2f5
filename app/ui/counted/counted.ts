import { Pipe, type PipeTransform } from '@angular/core';
import { counted } from '@core/text/counted';

/** A number with the word for what it counts: `{{ 1 | counted: 'passage' }}` is "1 passage". */
@Pipe({ name: 'counted' })
export class Counted implements PipeTransform {
  transform(count: number | null, one: string, many?: string): string {
    return counted(count, one, many);
  }
}
