import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { stateOf } from './sign-in';
import { allKept, change, makeStudy, record, type MadeStudy } from './study';
import { choose } from './controls';

const view = (page: Page, name: string): ReturnType<Page['getByRole']> =>
  page.getByRole('navigation', { name: 'Views of the plan' }).getByRole('link', { name, exact: true });

/** Types into a field that is edited in place, and leaves it. */
const put = async (page: Page, label: string, value: string): Promise<void> => {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(value);
  await field.press('Enter');
};
const chooseOf = (page: Page, label: string, option: string): Promise<void> => choose(page.getByLabel(label, { exact: true }), option);
/** A picture of one grey dot. */
const DOT_PNG = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==';

const pack = (name: string, sequence: number, fields: object): object => ({
  kind: 'package.add',
  id: randomUUID(),
  fields: {
    ...{
      sequence,
      name,
      vehicleId: null,
      subsystemId: null,
      optimisticS: 10_800,
      mostLikelyS: 14_400,
      pessimisticS: 21_600,
      skill: '',
      people: 1,
      who: [],
    },
    ...{
      place: 'none',
      rigId: null,
      hazards: [],
      after: [],
      pinnedOn: null,
      notBefore: null,
      startedOn: null,
      doneOn: null,
      workedS: null,
    },
    ...{ remainingS: null, agreedFrom: null, agreedTo: null, note: '' },
    ...fields,
  },
});
const resource = (kind: string, name: string, sequence: number): object => ({
  kind: 'resource.add',
  id: randomUUID(),
  fields: { sequence, kind, name, personId: null, skills: [], daysOff: [], ratedKg: null, note: '' },
});
// far ahead, so that today never lies inside the plan
const MONDAY = '2030-06-03';
const calendar = (studyId: string): object => ({
  kind: 'study.edit',
  id: studyId,
  was: { calendar: { startsOn: null, weekdays: [1, 2, 3, 4, 5], opensMin: 480, dayMin: 480, daysOff: [] } },
  fields: { calendar: { startsOn: MONDAY, weekdays: [1, 2, 3, 4, 5], opensMin: 480, dayMin: 480, daysOff: [] } },
});

test('a study is planned from the choice of a vehicle to the schedule, a package is moved, and the new finish is read', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'Planned');
  await page.goto(`/studies/${study.id}/plan/choice`);

  // two candidates; the one that readers want comes first and becomes a vehicle
  await page.getByRole('button', { name: 'Add a candidate' }).click();
  await put(page, 'Name', 'Barrow II');
  await put(page, 'Price', '31800.00');
  await page.getByRole('button', { name: 'Add a candidate' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Candidate 2');
  await put(page, 'Name', 'Costermonger');
  await put(page, 'Price', '58700');
  await put(page, 'Time to obtain', 'soon');
  await expect(page.getByRole('alert')).toContainText('“soon” is not a number');
  await put(page, 'Time to obtain', '6');
  await page.getByLabel('Who makes the new request').fill('the electronics group');
  await choose(page.getByLabel('Priority of the request'), 4);
  await page.getByRole('button', { name: 'Add the request' }).click();
  await expect(page.getByRole('row', { name: /Costermonger/ }).first()).toContainText('5');
  await expect(page.getByRole('row').nth(2)).toContainText('Costermonger');
  await put(page, 'Weight of price', '90');
  await expect(page.getByRole('row').nth(2)).toContainText('Barrow II');
  await put(page, 'Weight of price', '15');
  await page
    .getByRole('row', { name: /Costermonger/ })
    .first()
    .getByRole('button', { name: 'Make it a vehicle' })
    .click();
  await expect(page.getByRole('row', { name: /Costermonger/ }).first()).toContainText('in the study');

  // its passport: what is missing is said, and a kerb mass is told by somebody
  await view(page, 'Samples').click();
  await expect(page.getByLabel('Warnings about the samples')).toContainText('Costermonger has no kerb mass');
  await put(page, 'Kerb mass, Costermonger', '2.63 t');
  await expect(page.getByLabel('Kerb mass, Costermonger', { exact: true })).toHaveValue(/^2.?630$/);
  // no vehicle has such a wheelbase: it is kept, and questioned
  await put(page, 'Wheelbase, Costermonger', '2.42 mm');
  await expect(page.getByLabel('Warnings about the samples')).toContainText(/wheelbase 2\.42 mm, but vehicles have .* Is it 2.?420 mm\?/);
  await put(page, 'Wheelbase, Costermonger', '2.42 m');
  await expect(page.getByLabel('Warnings about the samples')).not.toContainText('Is it');
  await expect(page.getByLabel('How kerb mass of Costermonger is known')).toHaveText(/^T/);
  await put(page, 'Changes from standard, Costermonger', 'tow bar').catch(() => undefined);
  await page.getByLabel('Changes from standard, Costermonger').fill('tow bar');
  await page.getByLabel('Changes from standard, Costermonger').blur();
  await expect(page.getByLabel('Warnings about the samples')).toContainText('Costermonger is not as its maker delivered it (tow bar)');

  // the scope, with hours that somebody knows, becomes packages
  await view(page, 'Scope').click();
  await chooseOf(page, 'Vehicle', 'Drayman II');
  // left closed is kept only with its reason
  await chooseOf(page, 'Depth, Sliding cargo door', 'leave closed');
  await expect(page.getByRole('alert')).toContainText('Not kept yet: say why it stays closed');
  await put(page, 'Why it stays closed, Sliding cargo door', 'held back for the water test');
  await expect(page.getByText('1 leave closed')).toBeVisible();
  await chooseOf(page, 'Depth, Sliding cargo door', 'to parts');
  await put(page, 'Working time expected, Sliding cargo door', '40');
  await page.getByRole('button', { name: 'Make 2 packages from the scope' }).click();
  await expect(page.getByRole('button', { name: 'All of it has packages' })).toBeDisabled();

  // nobody is there yet, and the calendar has no first day: the plan says so
  await view(page, 'Schedule').click();
  await expect(page.getByLabel('What keeps the plan from working')).toContainText('no first day yet');
  await view(page, 'People and places').click();
  await page.getByLabel('First day of the plan').fill(MONDAY);
  await page.getByLabel('First day of the plan').blur();
  await view(page, 'Schedule').click();
  await expect(page.getByLabel('What keeps the plan from working')).toContainText('needs 2 people; the plan has none');
  await view(page, 'People and places').click();
  for (const one of ['Add a person', 'Add a person', 'Add a bay', 'Add a lift']) await page.getByRole('button', { name: one }).click();
  await expect(page.getByRole('region', { name: 'Lifts' }).or(page.locator('section[aria-label=Lifts]')).getByLabel('Name')).toHaveValue(
    'Lift 1',
  );

  // 40 h of people by two: 6 h off, 14 h apart, 20 h from Monday at eight
  await view(page, 'Schedule').click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Done Wed 5 Jun 12:00 2030', { timeout: 20_000 });
  await expect(page.getByText('with the most likely times no other order is done earlier')).toBeVisible();
  await page.getByRole('tab', { name: 'Table' }).click();
  await page.getByLabel('Pinned on, Sliding cargo door off Drayman II').fill('2030-06-06');
  await page.getByLabel('Pinned on, Sliding cargo door off Drayman II').blur();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Done Mon 10 Jun 12:00 2030', { timeout: 20_000 });

  // a pin that cannot be is named, and nothing is lost
  await page.getByLabel('Pinned on, Sliding cargo door off Drayman II').fill('2030-06-08');
  await page.getByLabel('Pinned on, Sliding cargo door off Drayman II').blur();
  await expect(page.getByLabel('What keeps the plan from working')).toContainText('is pinned on Sat 8 Jun, which is not a working day');
  await expect(page.getByRole('row', { name: /Take to parts/ })).toContainText('Wed 12 Jun');

  // agreed, and there after a reload
  await page.getByRole('button', { name: 'Agree on this plan' }).click();
  await expect(page.getByRole('button', { name: 'As agreed' })).toBeDisabled();
  await allKept(page);
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Done Wed 12 Jun 12:00 2030', { timeout: 20_000 });
  await expect(page.getByRole('button', { name: 'As agreed' })).toBeDisabled();
});

test.describe('a plan of three packages', () => {
  let study: MadeStudy;
  test.beforeEach(async ({ request, page }) => {
    study = await makeStudy(request, 'Three packages');
    await change(request, study.id, [
      calendar(study.id),
      resource('person', 'Ilse Brome', 0),
      resource('lift', 'Lift', 1),
      pack('door off', 0, { place: 'lift' }),
      pack('door apart', 1, {}),
      pack('seat off', 2, { place: 'lift', hazards: [] }),
    ]);
    await page.goto(`/studies/${study.id}/plan/schedule`);
    // three times four hours by one person
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Done Tue 4 Jun 12:00 2030', { timeout: 20_000 });
  });

  test('a bar dragged to another day is pinned there', async ({ page }) => {
    const chart = page.getByRole('img', { name: /3 bars in 3 rows/ });
    const box = (await chart.boundingBox())!;
    // rows are 24 px below an axis of 46; the plot begins 276 px from the left, and shows so many days
    const days = 3;
    const dayPx = (box.width - 276 - 22) / days;
    const y = box.y + 46 + 12 + 2 * 24;
    const from = box.x + 276 + 1.25 * dayPx;
    await page.mouse.move(from, y);
    await page.mouse.down();
    await page.mouse.move(from + dayPx / 2, y, { steps: 4 });
    await page.mouse.move(from + dayPx, y, { steps: 4 });
    await expect(page.getByText(/seat off: (Wed|Thu) \d Jun/)).toBeVisible();
    await page.mouse.up();
    await allKept(page);
    await page.getByRole('tab', { name: 'Table' }).click();
    await expect(page.getByLabel('Pinned on, seat off')).toHaveValue(/2030-06-0[56]/);
    await expect(page.getByRole('row', { name: /seat off/ })).toContainText(/(Wed 5|Thu 6) Jun 08:00/);
  });

  test('a package is begun, and the rest is planned from what is left; a circle is named', async ({ page }) => {
    await view(page, 'Packages').click();
    await page.getByRole('button', { name: 'door apart' }).click();
    await put(page, 'Optimistic, most likely and pessimistic hours', '8/12/20');
    await page.getByLabel('Numbers of the packages before').fill('3');
    await page.getByLabel('Numbers of the packages before').press('Enter');
    await view(page, 'Schedule').click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Done Wed 5 Jun 12:00 2030', { timeout: 20_000 });
    await view(page, 'Packages').click();
    await page.getByRole('button', { name: 'seat off' }).click();
    await page.getByLabel('Numbers of the packages before').fill('2');
    await page.getByLabel('Numbers of the packages before').press('Enter');
    await expect(page.getByRole('complementary', { name: 'Package' })).toContainText('is in a circle of packages that wait for each other');
    await view(page, 'Schedule').click();
    await expect(page.getByLabel('What keeps the plan from working')).toContainText(
      '“door apart” waits for “seat off” waits for “door apart”: none of them can ever begin',
    );
  });

  test('a question is attached to the chosen package with one key, and what was planned is in the history', async ({ page }) => {
    await view(page, 'Packages').click();
    await page.getByRole('button', { name: 'seat off' }).click();
    await put(page, 'Optimistic, most likely and pessimistic hours', '1/2/4');
    await page.getByRole('heading', { name: /seat off/ }).click();
    await page.keyboard.press('q');
    await expect(page.getByRole('dialog')).toContainText('About: seat off');
    await page
      .getByRole('dialog')
      .getByLabel(/^(Question|What)/)
      .first()
      .fill('Is the airbag side of it free?');
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /Attach|Save|Keep/ })
      .click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.getByRole('link', { name: /^Questions/ }).click();
    await expect(page.getByRole('row', { name: /Is the airbag side of it free/ })).toContainText('seat off');
    await page.getByRole('link', { name: /^History/ }).click();
    await expect(page.getByText('seat off').first()).toBeVisible();
    await expect(page.getByText('Most likely time').first()).toBeVisible();
  });

  test('a calendar file holds the work of one person, day by day', async ({ page }) => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Calendar file' }).click();
    const file = await download;
    expect(file.suggestedFilename()).toBe('Ilse Brome.ics');
    const text = await readFile(await file.path(), 'utf8');
    expect(text.startsWith('BEGIN:VCALENDAR\r\n')).toBe(true);
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(3);
    expect(text).toContain('DTSTART:20300603T080000\r\n');
    const csv = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Table as CSV' }).click();
    expect(await readFile(await (await csv).path(), 'utf8')).toContain(
      '1,door off,planned,3,4,6,1,2030-06-03T08:00,2030-06-03T12:00,Ilse Brome; Lift',
    );
  });

  test('hazards bring cautions and readings; a reading outside its limits is said to be so', async ({ page }) => {
    await view(page, 'Packages').click();
    await page.getByRole('button', { name: 'seat off' }).click();
    await page.getByText('Hazards, none').click();
    await page.getByLabel('High voltage', { exact: true }).check();
    await page.getByRole('button', { name: /4 hold points, 4 open/ }).click();
    await expect(page.getByText('never one alone')).toBeVisible();
    await expect(page.getByText('local codes and licensed practice decide').first()).toBeVisible();
    await put(page, 'Voltage measured at the terminals after the wait', '230');
    await expect(page.getByRole('alert')).toContainText('230 V is above 60 V');
    await put(page, 'Voltage measured at the terminals after the wait', '2');
    await expect(page.getByRole('row', { name: /seat off/ })).toContainText('3 of 4 open');
  });
});

test('the vehicle on the lift: the warning stands before the step that would tip it, and goes when the order is changed', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'On the lift');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'traction battery 700 kg');
  await allKept(page);
  await page.goto(`/studies/${study.id}/plan/precautions`);
  await page.getByRole('tab', { name: 'Lift balance' }).click();
  // a mass nobody knows is not made up
  await page.getByRole('button', { name: 'Put it on a lift' }).click();
  await expect(page.getByRole('alert')).toContainText('has no kerb mass: weigh it, or say it under Samples');
  await change(request, study.id, [
    { kind: 'vehicle.edit', id: study.vehicleIds[0], was: { kerbMassKg: null }, fields: { kerbMassKg: 2000 } },
  ]);
  await page.getByRole('alert').getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await view(page, 'Samples').click();
  await expect(page.getByLabel('Kerb mass, Drayman II', { exact: true })).toHaveValue(/^2.?000/);
  await view(page, 'Precautions').click();
  await page.getByRole('tab', { name: 'Lift balance' }).click();
  await page.getByRole('button', { name: 'Put it on a lift' }).click();
  await expect(page.getByLabel('Mass of the vehicle', { exact: true })).toHaveValue(/^2.?000/);
  // until it is found, the centre of mass is half way between the axles, known to ± 0.6 m, k = 2
  await expect(page.getByLabel('Its place ±, k = 2', { exact: true })).toHaveValue(/^0\.6/);
  await put(page, 'Its place ±, k = 2', '0.04');
  const step = async (n: number, label: string, massKg: string, x: string): Promise<void> => {
    await page.getByRole('button', { name: 'Add a step' }).click();
    const row = page.getByRole('row').nth(n);
    await row.getByLabel('What comes off').fill(label);
    await row.getByLabel('What comes off').press('Enter');
    await put(page, `Mass, ${label}`, massKg);
    await put(page, `Place behind the front axle, ${label}`, x);
  };
  // 2000 kg at 1.5 m; pads from 0.55 to 2.45 m. Engine of 500 kg at 0.3: 1.9 m. Front end of 300 kg at 0.2: 2.325 m. Bonnet of 200 kg at 0: 2.79 m
  await step(1, 'engine', '500', '0.3');
  await step(2, 'front end', '300', '0.2');
  await step(3, 'bonnet', '200', '0');
  await expect(page.getByText('Stop before step 2, “front end”')).toBeVisible();
  await expect(page.getByRole('row').nth(1)).toContainText('stays on the pads');
  await expect(page.getByRole('row').nth(2)).toContainText('TIPS');
  // the recorded battery takes the rear down with it: what is behind comes off first
  await page.getByRole('button', { name: 'Add a step' }).click();
  await put(page, 'Place behind the front axle, Step 4', '2.4');
  await chooseOf(page, 'What is recorded of Step 4', 'traction battery');
  for (const at of [4, 3, 2]) await page.getByRole('row').nth(at).getByRole('button', { name: 'Move Step 4 up' }).click();
  await expect(page.getByRole('row').nth(1)).toContainText('1 300');
  // 1.46 m after the engine; 2.22 m after the front end is not surely inside 2.45 m, with masses known to a tenth
  await expect(page.getByRole('row').nth(2)).toContainText('stays on the pads');
  await expect(page.getByText('Stop before step 3, “front end”')).toBeVisible();
  // all that is recorded of a subsystem comes off as one: 700 kg again
  await page.getByRole('button', { name: 'Add a step' }).click();
  await put(page, 'Place behind the front axle, Step 5', '1.5');
  await chooseOf(page, 'What is recorded of Step 5', 'Sliding cargo door, all of it');
  await expect(page.getByLabel('Mass, Step 5', { exact: true })).toHaveAttribute('placeholder', /^700/);
});

test('the lead keeps the table of usual hazards, and a package made from the scope begins with them', async ({ page, request }) => {
  const study = await makeStudy(request, 'Usual hazards');
  await page.goto(`/studies/${study.id}/plan/precautions`);
  await page.getByRole('tab', { name: 'Usual hazards' }).click();
  const hazards = (n: number): ReturnType<Page['getByRole']> => page.getByRole('group', { name: `Hazards of line ${n}` });
  const lines = page.getByRole('button', { name: /^Take line \d+ out$/ });
  await expect(lines.first()).toBeVisible();
  const before = await lines.count();
  await page.getByLabel('Words of a new line').fill('cargo door, tailgate');
  await page.getByRole('button', { name: 'Add a line' }).click();
  await expect(lines).toHaveCount(before + 1);
  const mine = before + 1;
  await expect(page.getByLabel(`Words of line ${mine}`, { exact: true })).toHaveValue('cargo door, tailgate');
  await choose(page.getByLabel(`Add a hazard to line ${mine}`), 'Springs and struts under load');
  await expect(hazards(mine)).toContainText('Springs and struts under load');
  await choose(page.getByLabel(`Add a hazard to line ${mine}`), 'Fuel');
  await page.getByRole('button', { name: `Take Fuel out of line ${mine}` }).click();
  await expect(page.getByRole('button', { name: `Take Fuel out of line ${mine}` })).toHaveCount(0);
  // a door of this study has no cut sheet: its usual line goes
  const cut = page.getByRole('button', { name: /^Take Sharp castings and cut sheet out of line/ });
  await expect(cut).toHaveCount(1);
  const at = /\d+$/.exec((await cut.getAttribute('aria-label')) ?? '')?.[0] ?? '';
  await page.getByRole('button', { name: `Take line ${at} out` }).click();
  await expect(lines).toHaveCount(before);
  await allKept(page);

  await view(page, 'Scope').click();
  await chooseOf(page, 'Vehicle', 'Drayman II');
  await chooseOf(page, 'Depth, Sliding cargo door', 'to parts');
  await page.getByRole('button', { name: /^Make \d+ packages from the scope$/ }).click();
  await view(page, 'Packages').click();
  await page
    .getByRole('button', { name: /Sliding cargo door/ })
    .first()
    .click();
  await expect(page.getByText('Hazards, 1')).toBeVisible();
  await page.getByText('Hazards, 1').click();
  await expect(page.getByLabel('Springs and struts under load', { exact: true })).toBeChecked();
  await expect(page.getByLabel('Sharp castings and cut sheet', { exact: true })).not.toBeChecked();
});

test('a rig of another study is found by part and hazard, and taken over with its lesson', async ({ page, request }) => {
  const [before, study] = [await makeStudy(request, 'Rigs before'), await makeStudy(request, 'Rigs now')];
  const name = `rotor guide ${before.id.slice(0, 6)}`;
  const fields = {
    ...{
      sequence: 0,
      name,
      madeFor: 'rotor of the rear drive unit',
      hazards: ['magnets'],
      design: 'two rails',
      timeToMakeS: 14_400,
      ratedN: 3000,
    },
    ...{ factor: 3, wentWrong: 'rails too short', state: 'made', copies: 1 },
  };
  await change(request, before.id, [{ kind: 'rig.add', id: randomUUID(), fields }]);
  await page.goto(`/studies/${study.id}/plan/rigs`);
  await page.getByLabel('Find a rig by part, hazard or word').fill(`rotor ${before.id.slice(0, 6)}`);
  await chooseOf(page, 'Hazard', 'Strong permanent magnets');
  await expect(page.getByRole('row', { name })).toContainText('rails too short');
  await page.getByRole('button', { name: 'Copy to this study' }).click();
  await expect(page.getByLabel('What went wrong last time')).toHaveValue('rails too short');
  // a picture of it, that is still there after a reload
  await page
    .getByRole('group', { name: /^Pictures/ })
    .locator('input[type=file]')
    .setInputFiles({ name: 'rig.png', mimeType: 'image/png', buffer: Buffer.from(DOT_PNG, 'base64') });
  await expect(page.getByRole('button', { name: /^Open picture/ })).toBeVisible();
  await allKept(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Open picture/ })).toBeVisible();
  await chooseOf(page, 'Hazard', 'Fuel');
  await expect(page.getByText('No rig is like that.')).toBeVisible();
});

test.describe('a reader', () => {
  test.use({ storageState: stateOf('pell') });
  test('asks for a vehicle and plans nothing', async ({ page, request, browser }) => {
    const lead = await browser.newContext({ storageState: stateOf('wenna') });
    const study = await makeStudy(lead.request, 'Read only plan');
    const candidate = {
      ...{ sequence: 0, name: 'Costermonger', maker: '', modelYear: null, vehicleClass: null, drive: null, voltageV: null, novelty: null },
      ...{ noveltyNote: '', waitDays: null, price: null, priceCurrency: null, priceYear: null, note: '', vehicleId: null },
    };
    await change(lead.request, study.id, [{ kind: 'candidate.add', id: randomUUID(), fields: candidate }]);
    await lead.close();
    await page.goto(`/studies/${study.id}/plan/choice`);
    await expect(page.getByRole('button', { name: 'Make it a vehicle' })).toHaveCount(0);
    await expect(page.getByLabel('Name', { exact: true })).toBeDisabled();
    await page.getByLabel('Who makes the new request').fill('the seat group');
    await page.getByRole('button', { name: 'Add the request' }).click();
    await expect(page.getByLabel('Requested by', { exact: true })).toHaveValue('the seat group');
    await allKept(page);
    const { requests } = (await (await request.get(`/api/studies/${study.id}`)).json()) as { requests: readonly { who: string }[] };
    expect(requests.map((r) => r.who)).toEqual(['the seat group']);
  });
});

test('a company holiday that is no day, or ends before it begins, is said to be so and nothing is added', async ({ page, request }) => {
  const study = await makeStudy(request, 'Holidays');
  await page.goto(`/studies/${study.id}/plan/people`);
  const add = async (from: string, to: string): Promise<void> => {
    await page.getByLabel('Day off from').fill(from);
    await page.getByLabel('Day off to').fill(to);
    await page.getByRole('button', { name: 'Add', exact: true }).click();
  };
  await add('2030-02-30', '');
  await expect(page.getByText('“2030-02-30” is no day of the calendar; write it as 2026-06-03')).toBeVisible();
  await add('2030-03-05', '2030-03-04');
  await expect(page.getByText('The last day off, 2030-03-04, is before the first, 2030-03-05')).toBeVisible();
  await add('2030-03-04', '2030-03-05');
  await expect(page.getByRole('button', { name: /^Work again/ })).toHaveCount(1);
  await page.getByLabel('The day begins at').fill('25:00');
  await page.getByLabel('The day begins at').press('Enter');
  await expect(page.getByText('Write the hour as 08:00, from 00:00 to 23:59')).toBeVisible();
  await allKept(page);
});
