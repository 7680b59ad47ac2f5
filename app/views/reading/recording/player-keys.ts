import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { type MatDialog, MatDialogModule } from '@angular/material/dialog';
import {
  FIRST_KEYS,
  keyName,
  keyWords,
  mayBeKey,
  PLAYER_COMMANDS,
  PlayerSettings,
  type PlayerCommand,
} from '../../../ui/sound/player-settings';

const DOES: Readonly<Record<PlayerCommand, string>> = {
  'play and stop': 'plays and stops',
  back: 'two seconds back',
  on: 'two seconds on',
  slower: 'slower',
  faster: 'faster',
  'again and again': 'plays what is marked again and again',
  'time here': 'notes the time at the caret',
  'unclear word': 'notes an unclear word, while transcribing',
};

/** The keys of a recording, which work while one types; each can be another, as a foot pedal sends it. */
@Component({
  selector: 'fl-player-keys',
  imports: [MatDialogModule],
  template: `
    <h2 mat-dialog-title>Keys of the recording</h2>
    <mat-dialog-content>
      <p>They work wherever the caret is. To change one, press its button and then the key, or the foot pedal.</p>
      <ul>
        @for (command of commands; track command) {
          <li>
            <span>{{ does[command] }}</span>
            <button
              class="do quiet"
              (click)="waiting.set(command)"
              (keydown)="take($event, command)"
              (blur)="waiting.set(null)"
              [attr.aria-label]="does[command] + ': ' + words(settings.keys()[command]) + ', change it'"
            >
              {{ waiting() === command ? 'press a key…' : words(settings.keys()[command]) }}
            </button>
          </li>
        }
      </ul>
      @if (refused()) {
        <p class="writing-note" role="alert">{{ refused() }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="do quiet" (click)="settings.keys.set(first)">As they were first</button>
      <button class="do" mat-dialog-close>Done</button>
    </mat-dialog-actions>
  `,
  styles: `
    ul {
      list-style: none;
      margin: 8px 0 0;
      padding: 0;
    }
    li {
      display: flex;
      justify-content: space-between;
      align-items: center;
      gap: 24px;
      padding: 3px 0;
    }
    li button {
      min-width: 150px;
    }
    mat-dialog-actions {
      gap: 8px;
      padding: 12px 24px 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlayerKeys {
  protected readonly settings = inject(PlayerSettings);
  protected readonly commands = PLAYER_COMMANDS;
  protected readonly does = DOES;
  protected readonly first = FIRST_KEYS;
  protected readonly words = keyWords;
  protected readonly refused = signal('');
  protected readonly waiting = signal<PlayerCommand | null>(null);

  static open(dialog: MatDialog): void {
    dialog.open(PlayerKeys, { width: '460px' });
  }

  protected take(event: KeyboardEvent, command: PlayerCommand): void {
    if (this.waiting() !== command) return;
    const name = keyName(event);
    // leaving and going on are not to be lost
    if (event.key === 'Tab') return;
    event.preventDefault();
    event.stopPropagation();
    if (name === null) return;
    this.refused.set(
      event.key !== 'Escape' && !mayBeKey(name)
        ? `${keyWords(name)} is needed for writing. Take one with Ctrl or Alt, or a key such as F7.`
        : '',
    );
    if (this.refused()) return;
    if (event.key !== 'Escape') this.settings.setKey(command, name);
    this.waiting.set(null);
  }
}
