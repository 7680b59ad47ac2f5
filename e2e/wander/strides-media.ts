import { expect } from '@playwright/test';
import type { Stride } from './strides';
import type { Walk } from './wanderer';

const RECORDINGS = ['Ellen at the pier', 'At the pier – Ellen'] as const;
const PICTURES = ['Plan of the pier', 'Notice of the last sailing', 'The bot, by Mattie (6)'] as const;

/** Opens one of some documents, if it is still there and of its name. */
async function open(walk: Walk, titles: readonly string[], shows: string): Promise<boolean> {
  const { page, filum, dice } = walk;
  const title = dice.one(titles);
  await filum.goTo('Reading');
  const menu = page.locator('fl-document-menu button').first();
  await expect(menu.or(page.locator('.empty')).first()).toBeVisible();
  if (!(await menu.isVisible())) return false;
  await menu.click();
  const list = page.getByRole('dialog', { name: 'Documents' });
  await list.getByLabel('Find a document').fill(title);
  const link = list.locator('[role=listitem] button').first();
  if ((await walk.settled(list.locator('[role=listitem] button'))) === 0) return false;
  await link.click();
  walk.note(title);
  await page.waitForTimeout(400);
  return page.locator(shows).first().isVisible();
}

/** Keys pressed with something focused, one after another. */
async function press(walk: Walk, keys: readonly string[], times: number): Promise<void> {
  for (let left = times; left > 0; left--) {
    const key = walk.dice.one(keys);
    walk.note(key);
    await walk.page.keyboard.press(key);
    await walk.page.waitForTimeout(60);
  }
}

/** Recordings and pictures: played, marked, coded and changed in their shape. */
export const MEDIA: readonly Stride[] = [
  {
    name: 'play a recording and mark spans of it',
    weight: 3,
    go: async (walk) => {
      if (!(await open(walk, RECORDINGS, 'fl-sound-line'))) return;
      const line = walk.page.locator('fl-sound-line').last();
      await line.focus();
      await press(
        walk,
        ['ArrowRight', 'Shift+ArrowRight', 'Home', 'i', 'o', '.', 'Control+Space', 'Control+ArrowLeft', 'Alt+ArrowDown'],
        8,
      );
      await walk.page.keyboard.press('Escape');
    },
  },
  {
    name: 'code a span of a recording by its pointer',
    weight: 3,
    go: async (walk) => {
      if (!(await open(walk, RECORDINGS, 'fl-sound-line'))) return;
      const { page, dice } = walk;
      const box = await page.locator('fl-sound-line').last().boundingBox();
      if (!box) return;
      const [from, to] = [dice.throw(), dice.throw()];
      await page.mouse.move(box.x + 4 + from * (box.width - 8), box.y + box.height / 2);
      await page.mouse.down();
      await page.mouse.move(box.x + 4 + to * (box.width - 8), box.y + box.height / 2, { steps: 3 });
      await page.mouse.up();
      await page.keyboard.press(dice.one(['.', '1', '2', 'Delete', 'Escape']));
    },
  },
  {
    name: 'draw and change areas of a picture',
    weight: 4,
    go: async (walk) => {
      if (!(await open(walk, PICTURES, 'fl-picture-surface'))) return;
      const { page, dice } = walk;
      const box = await page.locator('fl-picture-surface').first().boundingBox();
      if (!box) return;
      const at = () => [box.x + 10 + dice.throw() * (box.width - 20), box.y + 10 + dice.throw() * (box.height - 20)] as const;
      await page.mouse.move(...at());
      await page.mouse.down();
      await page.mouse.move(...at(), { steps: 3 });
      await page.mouse.up();
      await press(walk, ['.', '1', 'i', 'ArrowDown', 'Shift+ArrowDown', 'Alt+ArrowRight', 'Delete', '+', '-', 'Escape', 'u'], 6);
    },
  },
  {
    name: 'turn, mirror or cut a picture',
    weight: 2,
    go: async (walk) => {
      if (!(await open(walk, PICTURES, 'fl-picture-surface'))) return;
      const button = walk.page.getByRole('button', {
        name: walk.dice.one(['turn', 'mirror', 'cut to this', 'show all of it']),
        exact: true,
      });
      if ((await button.isVisible()) && (await button.isEnabled())) await button.click();
    },
  },
];
