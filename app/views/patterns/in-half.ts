import { InjectionToken } from '@angular/core';

/** Whether a pattern stands beside another: then the place has one heading for both. */
export const IN_HALF = new InjectionToken<boolean>('a pattern stands beside another', { providedIn: 'root', factory: () => false });
