import { InjectionToken } from '@angular/core';
import type { JournalEntry } from '@core/change/journal';

/** What was done in a study before it was opened, in any order. */
export const PAST = new InjectionToken<readonly JournalEntry[]>('PAST', { providedIn: 'root', factory: () => [] });
