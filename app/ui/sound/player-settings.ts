import { Injectable } from '@angular/core';
import { keptSignal } from '../../state/kept-signal';

/** What a key can ask of a recording, whatever the caret is in. */
export const PLAYER_COMMANDS = ['play and stop', 'back', 'on', 'slower', 'faster', 'again and again', 'time here', 'unclear word'] as const;
export type PlayerCommand = (typeof PLAYER_COMMANDS)[number];

/** Keys as they are first: the browser needs none of them while one writes. A foot pedal sends keys that can be put in their place. */
export const FIRST_KEYS: Readonly<Record<PlayerCommand, string>> = {
  'play and stop': 'Ctrl+Space',
  back: 'Ctrl+ArrowLeft',
  on: 'Ctrl+ArrowRight',
  slower: 'Ctrl+ArrowDown',
  faster: 'Ctrl+ArrowUp',
  'again and again': 'Ctrl+Shift+L',
  'time here': 'Ctrl+Shift+Space',
  'unclear word': 'Ctrl+.',
};

/** Speeds that can be chosen; the pitch stays. */
export const RATES = [0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.25, 1.5, 1.75, 2] as const;
/** How far back it goes on stopping, milliseconds. */
export const STEPS_BACK = [0, 500, 1_000, 2_000, 3_000] as const;
/** How far the keys go back and on, milliseconds. */
export const SKIP = 2_000;

const isOneOf =
  (some: readonly number[]) =>
  (stored: unknown): stored is number =>
    some.includes(stored as number);

/** How this researcher listens: kept in this browser, for all studies. */
@Injectable({ providedIn: 'root' })
export class PlayerSettings {
  readonly rate = keptSignal<number>('filum-player-rate', 1, isOneOf(RATES));
  readonly stepBack = keptSignal<number>('filum-player-step-back', 500, isOneOf(STEPS_BACK));
  readonly keys = keptSignal<Readonly<Record<PlayerCommand, string>>>('filum-player-keys', FIRST_KEYS, areKeys);

  /** The next slower or faster speed, as far as there is one. */
  turnRate(by: 1 | -1): void {
    const at = RATES.findIndex((rate) => rate === this.rate());
    this.rate.set(RATES[Math.max(0, Math.min(RATES.length - 1, at + by))]!);
  }

  /** What a key asks for, or null. */
  commandOf(event: KeyboardEvent): PlayerCommand | null {
    const name = keyName(event);
    return PLAYER_COMMANDS.find((command) => this.keys()[command] === name) ?? null;
  }

  /** Gives a command another key; the command that had it gets the one that is free now. */
  setKey(command: PlayerCommand, name: string): void {
    this.keys.update((keys) => {
      const other = PLAYER_COMMANDS.find((one) => keys[one] === name);
      return { ...keys, ...(other && { [other]: keys[command] }), [command]: name };
    });
  }
}

const isKeys = (stored: object): stored is Record<PlayerCommand, string> =>
  PLAYER_COMMANDS.every((command) => typeof (stored as Record<string, unknown>)[command] === 'string');
function areKeys(stored: unknown): stored is Readonly<Record<PlayerCommand, string>> {
  return typeof stored === 'object' && stored !== null && isKeys(stored);
}

/** A key as it is named and kept: "Ctrl+Space", "F7", "Shift+Alt+K". Keys that only turn others are none. */
export function keyName(event: KeyboardEvent): string | null {
  if (['Control', 'Shift', 'Alt', 'Meta', 'CapsLock', 'Dead', 'Process', 'Unidentified'].includes(event.key)) return null;
  const key = event.key === ' ' ? 'Space' : event.key.length === 1 ? event.key.toUpperCase() : event.key;
  // the command key of one keyboard is the control key of another
  return [event.ctrlKey || event.metaKey ? 'Ctrl' : '', event.shiftKey ? 'Shift' : '', event.altKey ? 'Alt' : '', key]
    .filter(Boolean)
    .join('+');
}

/** Whether a key can be one of the recording's: it writes nothing, and the text needs it for nothing else. */
export const mayBeKey = (name: string): boolean =>
  !['Ctrl+Enter', 'Ctrl+S', 'Ctrl+Z', 'Ctrl+Shift+Z', 'Ctrl+Y', 'Ctrl+A', 'Ctrl+C', 'Ctrl+V', 'Ctrl+X', 'Ctrl+F'].includes(name) &&
  /^(Ctrl\+|(Shift\+)?Alt\+(?!\d$)|(Shift\+)?F\d{1,2}$|Media|Audio|Launch|Pause$|ScrollLock$|Insert$)/.test(name);

/** A key in words for a sentence: "Ctrl Space", "Ctrl ←". */
export const keyWords = (name: string): string =>
  name.replace('ArrowLeft', '←').replace('ArrowRight', '→').replace('ArrowUp', '↑').replace('ArrowDown', '↓').replaceAll('+', ' ');
