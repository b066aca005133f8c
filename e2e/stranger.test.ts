// A stranger's first day, counted: an own photo, eight colours from six tubes, one put right, one darker, a row of steps, a card printed and found again.
import { expect } from 'chai';
import type { Locator } from 'playwright-core';
import { photo } from './photo.ts';
import { Sitting, soon } from './studio.ts';

for (const [says, hasTouch, most] of [
  ['by mouse', false, 45],
  ['by touch', true, 55],
] as const)
  describe(`a stranger’s first day, ${says}`, () => {
    let sitting: Sitting;
    before(async () => {
      const size = hasTouch ? { width: 820, height: 1180 } : { width: 1280, height: 800 };
      sitting = await Sitting.begin(false, { viewport: size, hasTouch });
    });
    after(() => sitting.end());

    it(`is done in ${most} actions, with no dead end`, async () => {
      const { page } = sitting;
      let actions = 0;
      const press = async (what: Locator): Promise<void> => {
        actions++;
        await (hasTouch ? what.tap() : what.click());
      };
      const button = (name: string | RegExp): Locator => page.getByRole('button', { name }).filter({ visible: true }).first();
      const more = async (key: RegExp, item: string): Promise<void> => {
        await press(button(key));
        await press(page.locator('.v-overlay--active .v-list-item', { hasText: item }).first());
      };
      const write = async (field: Locator, text: string): Promise<void> => {
        actions++;
        await field.fill(text);
      };
      const piles = async () => (await sitting.rows(sitting.paintingId)).piles!;

      await sitting.open();
      await press(button('Begin a painting'));
      await write(page.getByLabel('Title'), 'The yard');
      await press(page.getByRole('button', { name: 'Begin', exact: true }));
      const chooser = page.waitForEvent('filechooser');
      await press(button('Choose a picture'));
      await (await chooser).setFiles({ name: 'yard.jpg', mimeType: 'image/jpeg', buffer: await photo() });
      await page.locator('.picture canvas').waitFor();
      await page.getByText('Laying the palette out').waitFor({ state: 'detached' });

      // A sixth tube.
      await press(page.getByRole('link', { name: 'Another tube onto the palette' }));
      const search = page.getByLabel('Name, pigment or character');
      await write(search, 'viridian');
      actions++;
      await search.press('Enter');
      await soon(async () => (await sitting.rows()).palettes!.some(({ tubeIds }) => tubeIds.length === 6), 'six tubes');
      await press(page.getByRole('button', { name: 'Done', exact: true }));
      await page.locator('.picture canvas').waitFor();
      await page.getByText('Laying the palette out').waitFor({ state: 'detached' });

      for (let i = 0; i < 8; i++) {
        const box = (await page.locator('[role=application]').boundingBox())!;
        const [x, y] = [box.x + box.width * ((i % 4) / 4 + 0.125), box.y + box.height * (i < 4 ? 0.25 : 0.75)];
        actions++;
        if (!hasTouch) await page.mouse.click(x, y);
        else {
          await page.touchscreen.tap(x, y);
          await press(button(/Keep this pile/));
        }
        await soon(async () => (await piles()).length === i + 1, `colour ${i + 1}`);
      }

      // One is mixed, looked at and put right.
      const third = (await piles())[2];
      await press(page.locator(`.ledge a[href$="${third!.id}"]`));
      await press(button(/^Mixed/));
      await press(button('a good deal darker'));
      await press(button(/^Done/));
      await soon(async () => (await piles()).find(({ id }) => id === third!.id)!.stages.some(({ kind }) => kind === 'added'), 'put right');

      // One darker from it, and a row of five.
      await press(page.locator('[data-test=door]', { hasText: 'From it' }));
      await press(button('darker'));
      await page.locator('[data-test=kin-recipe]').waitFor();
      await press(button(/^Keep/));
      await soon(async () => (await piles()).length >= 9, 'the darker one');
      await press(page.locator('[data-test=door]', { hasText: 'In steps' }));
      await press(page.locator('.right .stops button').last());
      await page.locator('[data-test=keep-string]').waitFor();
      await press(page.locator('[data-test=keep-string]'));
      await soon(async () => (await piles()).some(({ string }) => string !== null), 'a row of steps');

      // A card of what is open, printed and found again.
      await more(/^More of this pile/, 'Make a card of it');
      await press(page.locator('[data-test=its-card]'));
      await page.locator('[data-test=open-card]').waitFor();
      const card = await page.getByLabel('Name of the card').inputValue();
      await more(/^More with this card/, 'Print it');
      const printed = page.waitForEvent('popup');
      await press(button('Card on A6'));
      await (await printed).close();
      await press(page.getByRole('link', { name: 'Cards', exact: true }));
      await write(page.locator('[data-test=find-words]').getByRole('textbox'), card.split(' ')[0]!);
      await press(page.locator('[data-test=card]').first());
      await page.locator('[data-test=open-card]').waitFor();
      expect(await page.getByLabel('Name of the card').inputValue()).to.equal(card);

      console.log(`      ${actions} actions`);
      expect(actions).to.be.at.most(most);
      expect(sitting.faults).to.deep.equal([]);
    });
  });
