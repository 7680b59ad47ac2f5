import { ChangeDetectionStrategy, Component, effect, type ElementRef, inject, input, output, viewChild } from '@angular/core';
import { Icon } from '../../../ui/icon/icon';
import { RecordingHere } from './recording-here';

/** How a film is shown: a guest at the side, large above the words, or not at all. */
export type FilmSize = 'small' | 'large' | 'away';

/** The film of a recording, shown by the element that plays it. */
@Component({
  selector: 'fl-film-view',
  imports: [Icon],
  template: `
    <div #frame class="frame"></div>
    <p>
      <button class="act small" (click)="sized.emit(size() === 'large' ? 'small' : 'large')">
        {{ size() === 'large' ? 'Smaller' : 'Larger' }}
      </button>
      <button class="icon" (click)="sized.emit('away')" aria-label="Put the film away"><fl-icon name="x" /></button>
    </p>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    .frame {
      background: #000;
      border-radius: 5px;
      overflow: hidden;
    }
    .frame ::ng-deep video {
      display: block;
      width: 100%;
      max-height: 40vh;
    }
    :host(.large) .frame ::ng-deep video {
      height: 44vh;
      max-height: none;
    }
    p {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      margin: 2px 0 0;
    }
  `,
  host: { '[class.large]': "size() === 'large'" },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FilmView {
  readonly size = input.required<FilmSize>();
  readonly sized = output<FilmSize>();
  protected readonly recorded = inject(RecordingHere);
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');

  constructor() {
    effect(() => {
      const element = this.recorded.player().element();
      if (element) element.setAttribute('aria-label', 'The film');
      this.frame().nativeElement.replaceChildren(...(element ? [element] : []));
    });
  }
}
