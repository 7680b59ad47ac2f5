import { DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { Document } from '@core/model/document';
import type { Media } from '@core/model/ground';
import type { Stretch } from '@core/model/stretch';
import { MediaFiles } from '../../state/media-files';
import { PlayerSettings, SKIP } from './player-settings';

/** What keeps a recording from being played. */
export type Unplayed = 'permission' | 'gone' | 'changed' | 'broken';

/** How often the time is told while it plays, milliseconds. */
const TOLD = 80;

/** Plays one recording at a time: whatever is heard in a place goes through one of these. */
@Injectable()
export class Player {
  private readonly files = inject(MediaFiles);
  private readonly settings = inject(PlayerSettings);
  /** What is to be played. */
  private readonly wanted = signal<Document | null>(null);
  private readonly found = signal<HTMLMediaElement | null>(null);
  /** The element that plays, of a film to be shown; null until the file is at hand. */
  readonly element = this.found.asReadonly();
  private readonly trouble = signal<Unplayed | null>(null);
  /** Why the recording cannot be played; null while it can, or is being looked for. */
  readonly unplayed = this.trouble.asReadonly();
  private readonly running = signal(false);
  readonly playing = this.running.asReadonly();
  private readonly told = signal(0);
  /** Where it is, in milliseconds, told some times a second while it plays; {@link now} is exact. */
  readonly time = this.told.asReadonly();
  /** Plays it again and again, as long as it is set. */
  readonly loop = signal<Stretch | null>(null);
  /** Where it stops by itself, milliseconds. */
  private until: number | null = null;
  private address = '';
  private frame = 0;
  private turn = 0;
  private opening: { readonly sha256: string; readonly done: Promise<void> } | null = null;

  constructor() {
    effect(() => {
      const document = this.wanted();
      this.files.changes();
      untracked(() => void this.open(document));
    });
    effect(() => {
      const rate = this.settings.rate();
      const element = this.found();
      if (element) element.playbackRate = element.defaultPlaybackRate = rate;
    });
    inject(DestroyRef).onDestroy(() => {
      this.turn++;
      this.letGo();
    });
  }

  /** Makes ready a recording, or nothing. Asking for the one that is there changes nothing. */
  use(document: Document | null): void {
    this.wanted.set(document?.ground.of === 'time' ? document : null);
  }

  /** Waits for the recording that was asked for. @returns whether it can be played */
  async ready(): Promise<boolean> {
    await this.open(this.wanted());
    return this.found() !== null;
  }

  /** How long the recording is, milliseconds. */
  get length(): number {
    const ground = this.wanted()?.ground;
    return ground?.of === 'time' ? ground.milliseconds : 0;
  }

  /** Where it is, exactly, in milliseconds. */
  now(): number {
    const element = this.found();
    // before the file is looked into the element knows no time, and goes to the one that was asked for
    if (!element || element.readyState < HTMLMediaElement.HAVE_METADATA) return this.told();
    return Math.min(this.length, Math.round(element.currentTime * 1000));
  }

  toggle(): void {
    if (this.running()) this.stop();
    else this.play();
  }

  play(): void {
    const element = this.found();
    if (!element) return;
    this.until = null;
    if (this.now() >= this.length - 20) this.seek(0);
    // refused where the file turns out to be broken, which `error` tells
    void element.play().catch(() => undefined);
  }

  /** Stops, and goes back a little if the researcher wants that: the next words are heard from their beginning. */
  stop(): void {
    const element = this.found();
    if (!element || element.paused) return;
    element.pause();
    if (this.settings.stepBack() > 0) this.skip(-this.settings.stepBack());
  }

  /** Goes to a time, in milliseconds. */
  seek(time: number): void {
    const element = this.found();
    const to = Math.max(0, Math.min(this.length, time));
    if (element) element.currentTime = to / 1000;
    this.told.set(Math.round(to));
  }

  /** Goes on, or back where it is less than 0. */
  skip(milliseconds: number): void {
    this.seek(this.now() + milliseconds);
  }

  /** Plays a span and stops at its end. */
  playSpan({ start, end }: Stretch): void {
    const element = this.found();
    if (!element) return;
    this.seek(start);
    this.until = end;
    void element.play().catch(() => undefined);
  }

  private open(document: Document | null): Promise<void> {
    const media = document?.ground.of === 'time' ? document.ground.media : null;
    // one that is there already goes on as it is, and one that is on its way is waited for
    if (media && this.found()?.dataset['sha256'] === media.sha256) return Promise.resolve();
    if (media && this.opening?.sha256 === media.sha256) return this.opening.done;
    const done = this.fetch(media).finally(() => {
      if (this.opening?.done === done) this.opening = null;
    });
    this.opening = media && { sha256: media.sha256, done };
    return done;
  }

  private async fetch(media: Media | null): Promise<void> {
    const turn = ++this.turn;
    this.letGo();
    this.trouble.set(null);
    if (!media) return;
    const found = await this.files.find(media);
    if (turn !== this.turn) return;
    if ('missing' in found) this.trouble.set(found.missing);
    else this.found.set(this.elementOf(media, found.file));
  }

  private elementOf(media: Media, file: Blob): HTMLMediaElement {
    this.address = URL.createObjectURL(file);
    const element = document.createElement(media.type.startsWith('video/') ? 'video' : 'audio');
    element.preload = 'auto';
    element.preservesPitch = true;
    element.playbackRate = element.defaultPlaybackRate = this.settings.rate();
    element.dataset['sha256'] = media.sha256;
    element.addEventListener('play', () => this.began());
    element.addEventListener('pause', () => this.ended());
    element.addEventListener('seeked', () => this.told.set(this.now()));
    // frames are not drawn in a window that nobody sees, and what is heard there ends all the same
    element.addEventListener('timeupdate', () => this.turnAtEnd());
    element.addEventListener('error', () => {
      if (this.found() !== element) return;
      this.letGo();
      this.trouble.set('broken');
    });
    element.src = this.address;
    return element;
  }

  /** The media keys of a keyboard or a headset work the recording that was played last. */
  private takeMediaKeys(): void {
    // some browsers have none of it, and some know only some of the keys
    const { mediaSession } = navigator as { readonly mediaSession?: MediaSession };
    for (const [key, act] of this.mediaKeys)
      try {
        mediaSession?.setActionHandler(key, act);
      } catch {
        // a key that this browser does not know
      }
  }

  private readonly mediaKeys: readonly (readonly [MediaSessionAction, () => void])[] = [
    ['play', () => this.play()],
    ['pause', () => this.stop()],
    ['seekbackward', () => this.skip(-SKIP)],
    ['seekforward', () => this.skip(SKIP)],
  ];

  private began(): void {
    this.running.set(true);
    this.takeMediaKeys();
    cancelAnimationFrame(this.frame);
    const follow = (): void => {
      this.turnAtEnd();
      if (Math.abs(this.now() - this.told()) >= TOLD) this.told.set(this.now());
      if (this.running()) this.frame = requestAnimationFrame(follow);
    };
    follow();
  }

  private ended(): void {
    this.running.set(false);
    this.until = null;
    this.told.set(this.now());
  }

  private turnAtEnd(): void {
    const element = this.found();
    if (!element || element.paused) return;
    const loop = this.loop();
    if (loop && this.now() >= loop.end) return this.seek(loop.start);
    if (this.until !== null && this.now() >= this.until) element.pause();
  }

  private letGo(): void {
    cancelAnimationFrame(this.frame);
    const element = this.found();
    this.found.set(null);
    this.running.set(false);
    this.loop.set(null);
    this.until = null;
    this.told.set(0);
    element?.pause();
    element?.removeAttribute('src');
    // without it the browser holds on to the file
    element?.load();
    URL.revokeObjectURL(this.address);
  }
}
