import { inject, type Provider } from '@angular/core';
import { analysisOf } from '@core/analysis/analysis';
import { TextCache } from '../state/text-cache';
import { ANALYSIS } from '../workers/analysis-service';

/** Gives components the analysis itself, without a worker around it; it reads texts from memory. */
export const analysisHere: Provider = {
  provide: ANALYSIS,
  useFactory: () => {
    const texts = inject(TextCache);
    return () => ({ remote: analysisOf((_, ids) => Promise.resolve(ids.flatMap((id) => texts.peek(id) ?? []))), stop: () => undefined });
  },
};
