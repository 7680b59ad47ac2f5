import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Document } from '@core/model/document';
import { Bench } from '@core/testing/make';
import { atHand, recordSound } from '../../testing/with-sound';
import { until } from '../../testing/until';
import { Player } from './player';
import { FIRST_KEYS, keyName, keyWords, mayBeKey, PlayerSettings } from './player-settings';

describe('A player', () => {
  let player: Player;
  let settings: PlayerSettings;
  let document: Document;

  beforeEach(async () => {
    localStorage.clear();
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), Player] });
    const made = await recordSound(new Bench(), 'Pier', 2);
    document = made.document;
    atHand(document, made.file);
    settings = TestBed.inject(PlayerSettings);
    settings.stepBack.set(0);
    player = TestBed.inject(Player);
    player.use(document);
    expect(await player.ready()).toBeTrue();
  });

  afterEach(() => TestBed.resetTestingModule());

  it('plays, stops and tells where it is', async () => {
    player.seek(500);
    player.play();
    await until(() => player.playing() && player.now() > 700);
    player.stop();
    await until(() => !player.playing());
    expect(player.time()).toBeGreaterThan(600);
    expect(player.time()).toBe(player.now());
  });

  it('goes a little back on stopping, where that is wanted, and never before the beginning or behind the end', async () => {
    settings.stepBack.set(500);
    player.seek(1_000);
    player.play();
    await until(() => player.now() > 1_150);
    player.stop();
    await until(() => !player.playing());
    expect(player.now()).toBeLessThan(1_000);
    player.skip(-9_000);
    expect(player.time()).toBe(0);
    player.seek(99_000);
    expect(player.time()).toBe(4_000);
  });

  it('plays a span and stops at its end, or plays it again and again', async () => {
    player.playSpan({ start: 300, end: 600 });
    await until(() => player.playing());
    await until(() => !player.playing());
    expect(player.now()).toBeGreaterThanOrEqual(600);
    expect(player.now()).toBeLessThan(1_000);
    player.loop.set({ start: 100, end: 400 });
    player.seek(350);
    player.play();
    await until(() => player.now() < 340);
    expect(player.playing()).toBeTrue();
  });

  it('keeps the pitch whatever the speed, and the speed when another recording comes', async () => {
    settings.turnRate(1);
    TestBed.tick();
    expect(player.element()!.playbackRate).toBe(1.1);
    expect(player.element()!.preservesPitch).toBeTrue();
    const other = await recordSound(new Bench(9), 'Other', 1);
    atHand(other.document, other.file);
    player.use(other.document);
    expect(await player.ready()).toBeTrue();
    expect(player.element()!.playbackRate).toBe(1.1);
    expect(player.length).toBe(2_000);
  });

  it('says what keeps a recording from being played, and lets go of the one before', async () => {
    const bench = new Bench(5);
    player.use(bench.record('Nowhere', 1_000));
    expect(await player.ready()).toBeFalse();
    expect(player.unplayed()).toBe('gone');
    const broken = bench.record('Broken', 1_000);
    atHand(broken, new Blob(['no sound at all'], { type: 'audio/wav' }));
    player.use(broken);
    await player.ready();
    await until(() => player.unplayed() === 'broken');
    expect(player.element()).toBeNull();
  });
});

describe('Keys of a recording', () => {
  const key = (init: KeyboardEventInit): KeyboardEvent => new KeyboardEvent('keydown', init);

  beforeEach(() => {
    localStorage.clear();
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
  });

  it('are told by name, the same on every keyboard', () => {
    expect(keyName(key({ key: ' ', ctrlKey: true }))).toBe('Ctrl+Space');
    expect(keyName(key({ key: ' ', metaKey: true }))).toBe('Ctrl+Space');
    expect(keyName(key({ key: 'F7' }))).toBe('F7');
    expect(keyName(key({ key: 'Control', ctrlKey: true }))).toBeNull();
    expect(keyWords('Ctrl+ArrowLeft')).toBe('Ctrl ←');
  });

  it('are never such as one writes with', () => {
    for (const name of ['A', 'Space', 'Enter', 'Shift+A', 'ArrowLeft', 'Ctrl+Enter', 'Ctrl+Z', 'Alt+1'])
      expect(mayBeKey(name)).withContext(name).toBeFalse();
    for (const name of [...Object.values(FIRST_KEYS), 'F7', 'MediaPlayPause', 'Alt+K', 'Pause'])
      expect(mayBeKey(name)).withContext(name).toBeTrue();
  });

  it('can be others, and none ever means two things', () => {
    const settings = TestBed.inject(PlayerSettings);
    settings.setKey('play and stop', 'F7');
    expect(settings.commandOf(key({ key: 'F7' }))).toBe('play and stop');
    settings.setKey('back', 'F7');
    expect(settings.commandOf(key({ key: 'F7' }))).toBe('back');
    expect(new Set(Object.values(settings.keys())).size).toBe(Object.keys(FIRST_KEYS).length);
    expect(settings.commandOf(key({ key: 'q' }))).toBeNull();
  });
});
