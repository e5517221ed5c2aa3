import { expect } from '@playwright/test';
import { emailOf, fillSignIn, LIVE, studio, test } from './setting';

/** Released applications on an origin of their own: to a browser, `localhost` is another one than `127.0.0.1`. */
test.use({ liveHost: 'localhost' });

test('people sign in, list, save and act as another person on the live origin', async ({ page, server }) => {
  const live = server.replace('127.0.0.1', 'localhost');
  const failed: string[] = [];
  page.on('response', (answer) => {
    if (answer.status() >= 400) failed.push(`${answer.status()} ${answer.url()}`);
  });
  await page.goto(`${live}${LIVE}/sign-in?back=${encodeURIComponent(`${LIVE}/items?l_items.q=Blue ewer`)}`);
  await fillSignIn(page, emailOf('Agnes Holloway'));
  await page.getByRole('link', { name: 'LM.1904.12' }).click();
  await page.getByRole('textbox', { name: 'Maker' }).fill('Made on the live origin');
  await page.getByRole('button', { name: 'Save changes' }).click();
  await expect(page.getByText('Saved.', { exact: true })).toBeVisible();
  await page.goto(page.url());
  await expect(page.getByRole('textbox', { name: 'Maker' })).toHaveValue('Made on the live origin');
  await page.getByRole('button', { name: 'Act as someone else…' }).click();
  await page.getByPlaceholder('Name').fill('ines');
  await page.getByRole('option', { name: /^Ines/ }).click();
  await expect(page.getByRole('region', { name: 'Acting as someone else' })).toContainText('Ines Okafor');
  expect(failed).toEqual([]);
});

test('each origin serves its own part, and the studio works on the other one', async ({
  browser,
  server,
  request,
}) => {
  const live = server.replace('127.0.0.1', 'localhost');
  const statusOf = async (url: string): Promise<number> =>
    (await request.get(url, { maxRedirects: 0 })).status();
  expect(await statusOf(`${live}/studio/sign-in`)).toBe(404);
  expect(await statusOf(`${live}/studio/api/applications/larkfield/proof`)).toBe(404);
  expect(await statusOf(`${server}${LIVE}/catalogue`)).toBe(404);
  expect(await statusOf(`${live}${LIVE}/catalogue`)).toBe(200);
  const page = await studio(browser);
  await expect(page.getByRole('navigation').first()).toBeVisible();
});
