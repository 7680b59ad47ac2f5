import { DOCUMENT } from '@angular/common';
import { computed, effect, inject, Injectable, signal } from '@angular/core';

/** Light, dark, or as the system has it. */
export type Theme = 'system' | 'light' | 'dark';

const KEY = 'filum-theme';

/** The reader's choice of theme, kept in this browser. */
@Injectable({ providedIn: 'root' })
export class ThemeChoice {
  private readonly document = inject(DOCUMENT);
  private readonly system = matchMedia('(prefers-color-scheme: dark)');
  private readonly systemDark = signal(this.system.matches);
  readonly chosen = signal<Theme>(readTheme());
  /** Whether the dark theme is shown at present. */
  readonly dark = computed(() => this.chosen() === 'dark' || (this.chosen() === 'system' && this.systemDark()));

  constructor() {
    this.system.addEventListener('change', (event) => this.systemDark.set(event.matches));
    effect(() => {
      this.document.documentElement.dataset['theme'] = this.dark() ? 'dark' : 'light';
      localStorage.setItem(KEY, this.chosen());
    });
  }

  /** The next of system, light, dark. */
  next(): void {
    this.chosen.update((theme) => (theme === 'system' ? 'light' : theme === 'light' ? 'dark' : 'system'));
  }
}

function readTheme(): Theme {
  const kept = localStorage.getItem(KEY);
  return kept === 'light' || kept === 'dark' ? kept : 'system';
}
