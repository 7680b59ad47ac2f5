import { expect, type Browser, type BrowserContext, type Locator, type Page } from '@playwright/test';
import { Filum } from '../support/filum';
import { Dice } from './dice';
import { STRIDES } from './strides';
import { Complaints, difference, Onlooker, wholeOf } from './watch';

/** A fault the wanderer met, with the way that led to it. */
export class WanderError extends Error {
  constructor(
    readonly seed: number,
    readonly way: readonly string[],
    readonly fault: unknown,
  ) {
    super(
      `seed ${seed}, stride ${way.length}: ${way.slice(-6).join(' → ')}\n${fault instanceof Error ? (fault.stack ?? fault.message) : String(fault)}`,
    );
    this.name = 'WanderError';
  }
}

/** What strides work with. */
export class Walk {
  readonly filum: Filum;
  /** What each stride did, in words, for the report. */
  readonly way: string[] = [];
  /** Whether saves are refused at present. */
  refusing = false;

  constructor(
    readonly context: BrowserContext,
    public page: Page,
    readonly dice: Dice,
    readonly complaints: Complaints,
    readonly studyUrl: string,
  ) {
    this.filum = new Filum(page);
  }

  /** Adds to what the report says of this stride. */
  note(words: string): void {
    this.way[this.way.length - 1] += ` (${words})`;
  }

  /** Goes to a part of a place, which by itself shows the part that was shown last. */
  async goToPart(place: string, part: string | RegExp): Promise<void> {
    await this.filum.goTo(place);
    await this.page
      .getByRole('navigation', { name: /^Parts of / })
      .getByRole('link', { name: part })
      .click();
  }

  /** Leaves dialogs, menus and lists that a stride before may have left open. */
  async clear(): Promise<void> {
    const covers = this.page.locator('.cdk-overlay-pane > *, fl-code-picker, .link-offers:not([hidden])');
    for (let tries = 0; tries < 6 && (await covers.count()) > 0; tries++) {
      await this.page.keyboard.press('Escape');
      await this.page.waitForTimeout(120);
    }
  }

  /** How many elements there are, once a list no longer changes: one that is just being filtered has rows that go. */
  async settled(all: Locator): Promise<number> {
    let before = -1;
    let count = await all.count();
    for (let looks = 0; looks < 20 && count !== before; looks++) {
      before = count;
      await this.page.waitForTimeout(80);
      count = await all.count();
    }
    return count;
  }

  /** One of several elements that can be seen, or null. */
  async any(selector: string) {
    const all = this.page.locator(`${selector}:visible`);
    const count = await this.settled(all);
    return count === 0 ? null : all.nth(this.dice.below(count));
  }

  /** Done when what the last click led to is on the disk; a dialog that closes does its work a moment later. */
  async saved(): Promise<void> {
    await this.page.waitForTimeout(250);
    if (!this.refusing) await this.filum.saved();
  }
}

/** Refuses what a tab writes to the journal while the page says so, as a full disk does. */
const refusesOnDemand = () => {
  const original = IDBObjectStore.prototype.add;
  IDBObjectStore.prototype.add = function (...args) {
    if ((window as { refuse?: boolean }).refuse && this.name === 'journal') throw new DOMException('No room.', 'QuotaExceededError');
    return original.apply(this, args);
  };
};

/**
 * Walks through the demo study for some strides, looks after each whether all is sound, and at the end takes everything
 * back: the study must be the one it began with.
 * @throws WanderError at the first fault
 */
export async function wander(
  browser: Browser,
  baseURL: string,
  seed: number,
  strides: number,
  tell: (words: string) => void = () => undefined,
): Promise<void> {
  const context = await browser.newContext({
    baseURL,
    viewport: { width: 1280, height: 800 },
    permissions: ['clipboard-read', 'clipboard-write'],
    acceptDownloads: true,
  });
  await context.addInitScript(refusesOnDemand);
  const complaints = new Complaints();
  const page = await context.newPage();
  page.setDefaultTimeout(15_000);
  complaints.listenTo(page);
  const way: string[] = [];
  try {
    await new Filum(page).openDemo();
    const studyUrl = page.url().replace(/\/overview.*/, '');
    const walk = new Walk(context, page, new Dice(seed), complaints, studyUrl);
    const onlooker = await Onlooker.open(context, complaints, studyUrl);
    const begun = wholeOf(await onlooker.study());
    for (let at = 0; at < strides; at++) {
      await walk.clear();
      const stride = walk.dice.weighted(STRIDES);
      walk.way.push(stride.name);
      way.push(stride.name);
      await stride.go(walk);
      way[way.length - 1] = walk.way.at(-1)!;
      tell(`${at + 1}: ${walk.way.at(-1)}`);
      complaints.check();
      await walk.saved();
      if (!walk.refusing) await onlooker.study();
      complaints.check();
    }
    way.push('taking everything back');
    await takeAllBack(walk);
    const fault = difference(begun, wholeOf(await onlooker.study()));
    if (fault) throw new Error(`Taking everything back leads elsewhere.\n${fault}`);
    complaints.check();
  } catch (fault) {
    await page.screenshot({ path: `test-results/wander-${seed}.png` }).catch(() => undefined);
    throw new WanderError(seed, way, fault);
  } finally {
    await context.close();
  }
}

async function takeAllBack(walk: Walk): Promise<void> {
  const { page } = walk;
  await walk.clear();
  await page.goto(`${walk.studyUrl}/overview`);
  if (await page.getByRole('button', { name: 'Work here instead' }).isVisible())
    await page.getByRole('button', { name: 'Work here instead' }).click();
  await expect(page.locator('[data-save]')).toBeVisible();
  await page.evaluate(async () => {
    const undo = document.querySelector<HTMLButtonElement>('button[aria-label=Undo]')!;
    for (let idle = 0; idle < 20;) {
      if (undo.disabled) idle++;
      else idle = 0;
      undo.click();
      await new Promise((resolve) => setTimeout(resolve, 15));
    }
  });
  await walk.filum.saved();
}
