import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { AttributesView } from './attributes-view';
import { CrossTableView } from './cross-table-view';
import { FrequenciesView } from './frequencies-view';
import { SaturationView } from './saturation-view';
import { PatternDraft } from './pattern-draft';
import { SimilarityView } from './similarity-view';
import { TakingUpView } from './taking-up-view';
import { TogetherView } from './together-view';
import { WeaveView } from './weave-view';
import { WordCountsView } from './word-counts-view';
import { WordTableView } from './word-table-view';

/** One pattern, by what it is called in addresses. */
@Component({
  selector: 'fl-pattern-view',
  imports: [
    AttributesView,
    CrossTableView,
    FrequenciesView,
    SaturationView,
    SimilarityView,
    TakingUpView,
    TogetherView,
    WeaveView,
    WordCountsView,
    WordTableView,
  ],
  template: `
    @switch (view()) {
      @case ('frequencies') {
        <fl-frequencies />
      }
      @case ('together') {
        <fl-together />
      }
      @case ('weave') {
        <fl-weave />
      }
      @case ('taking-up') {
        <fl-taking-up />
      }
      @case ('similarity') {
        <fl-similarity />
      }
      @case ('saturation') {
        <fl-saturation />
      }
      @case ('words') {
        @if (words().shown === 'table') {
          <fl-word-table />
        } @else {
          <fl-word-counts />
        }
      }
      @case ('attributes') {
        <fl-attributes />
      }
      @default {
        <fl-cross-table />
      }
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PatternView {
  readonly view = input<string>();
  protected readonly words = inject(PatternDraft).of('words');
}
