import { act, configure, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import type { KitchenBook } from '@broth/contract';
import { makeLine, versionKey } from '@broth/core';
import { ruleVersions } from '../../testing/rules';
import type { Food, Soup } from '@broth/core';
import { HANDBOOK } from '@broth/core/handbook';
import { readCard } from '@broth/contract/formats';
import { useKitchen } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import { BookScreen } from './BookScreen';
import { EditScreen } from './EditScreen';
import { FreeSheetScreen } from './FreeSheetScreen';
import { NewScreen } from './NewScreen';
import { PantryScreen } from './PantryScreen';
import { SoupScreen } from './SoupScreen';

// A form of forty fields takes its time on a busy machine.
configure({ asyncUtilTimeout: 10_000 });

const mockWent: string[] = [];
const mockParams = { soupId: 'pumpkin' };
jest.mock('expo-router', () => ({
  useRouter: () => ({
    push: (to: string) => mockWent.push(to),
    replace: (to: string) => mockWent.push(`=${to}`),
    back: () => mockWent.push('back'),
    canGoBack: () => false,
    navigate: (to: string) => mockWent.push(to),
  }),
  usePathname: () => '/book',
  useLocalSearchParams: () => mockParams,
}));
const mockKept = new Map<string, unknown>();
jest.mock('idb-keyval', () => ({
  get: (key: string) => Promise.resolve(mockKept.get(key)),
  set: (key: string, value: unknown) => {
    mockKept.set(key, JSON.parse(JSON.stringify(value)));
    return Promise.resolve();
  },
  del: (key: string) => {
    mockKept.delete(key);
    return Promise.resolve();
  },
}));
jest.mock('../../state/api', () => ({
  api: {
    soupHistory: () => Promise.resolve({ stepTimes: { simmer: [18, 25, 22].map((minutes) => ({ volumeL: 10, minutes })) }, liquidPerLitre: [], yieldShare: [] }),
    soupVersions: () => Promise.reject(new Error('away')),
  },
}));

const pumpkin = readCard(
  {
    name: 'Pumpkin and ginger',
    makesL: 2.4,
    ingredients: '3.5 lb pumpkin, peeled and cubed\n2 onions, chopped\n2 Tbsp butter\n1 Tbsp ginger, grated\n950 ml water\n1/2 cup heavy cream\n2 tsp salt',
    method:
      'Soften the onions in butter 8-10 min, then the ginger\nAdd pumpkin and water, bring to the boil\nSimmer 20-30 min until a knife goes through\nBlend half of it\nStir in the cream off the heat, salt',
  },
  { pantry: HANDBOOK, made: [], measures: 'us' },
  'pumpkin',
).soup;

const saved: { soup: Soup; base: number | null }[] = [];
let answer: Awaited<ReturnType<ReturnType<typeof useKitchen.getState>['saveSoup']>> | null = null;
beforeEach(() => {
  mockWent.length = 0;
  saved.length = 0;
  mockKept.clear();
  answer = null;
  usePreferences.setState({ who: 'lead', device: 'd', look: 'enamel' });
  useKitchen.setState({
    book: {
      kitchen: { id: 'k', name: 'K', place: '', timeZone: 'UTC', temperatureUnit: 'F', invented: true },
      soups: [pumpkin],
      pantry: HANDBOOK as Food[],
      station: {
        equipment: [
          { kind: 'vessel', id: 'k1', name: 'Kettle 1', capacityL: 30, minFillL: 8, workingMaxL: 25, powerKw: 12, inUse: true },
          { kind: 'vessel', id: 'pot', name: 'Pot', capacityL: 12, minFillL: 2, workingMaxL: 10, inUse: true },
          { kind: 'jar', id: 'j', name: 'Jar', capacityL: 2, hotFillL: 1.2, cycleMin: 2.5, inUse: true },
        ],
        people: [{ id: 'lead', name: 'Maren Oake', role: 'lead', shift: { fromMin: 300, toMin: 800 } }],
        services: [{ id: 'midday', name: 'Midday', startMin: 690, endMin: 840 }],
        rinseMin: 5,
        fullWashMin: 12,
        readyLeadMin: 20,
      },
      rules: ruleVersions,
      thermometers: [],
      today: '2026-11-25',
      suggestedDay: '2026-11-25',
      now: 0,
    } as unknown as KitchenBook,
    day: null,
    line: 'live',
    trouble: null,
    saveSoup: (soup, base) => {
      saved.push({ soup, base });
      return Promise.resolve(answer ?? { kind: 'saved', soup: { ...soup, version: (base ?? 0) + 1 } });
    },
  });
});
const type = (name: string | RegExp, text: string): void => {
  fireEvent.change(screen.getByRole('textbox', { name }), { target: { value: text } });
};
const press = (name: string | RegExp): Promise<void> =>
  act(async () => {
    fireEvent.click(screen.getByRole('button', { name }));
    // The form checks itself before it answers.
    await Promise.resolve();
  });

describe('the book', () => {
  test('finds a soup by what is in it, opens it, and says when nothing is found', () => {
    render(<BookScreen />);
    type('Find a soup or an ingredient', 'ginger');
    fireEvent.click(screen.getByRole('link', { name: 'Pumpkin and ginger' }));
    expect(mockWent).toEqual(['/book/pumpkin']);
    type('Find a soup or an ingredient', 'lobster');
    expect(screen.getByText(/Nothing in the book has "lobster"/)).toBeTruthy();
  });
});

describe('a new soup', () => {
  test('asks for what is missing, keeps what was typed, reads the card and says what is in doubt', async () => {
    render(<NewScreen />);
    type('Name', 'Carrot');
    await press('Read the card');
    expect([screen.getByText(/Say what it makes/), screen.getByText('Type at least one line.')].length).toBe(2);
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe('Carrot');
    type('It makes', '2 1/2');
    type('What goes in, one a line', '2 lb carrots, peeled\n2 dollops yogurt');
    await press('Read the card');
    expect(screen.getByText(/"dollops" is no unit known here/)).toBeTruthy();
    expect(screen.getByRole('button', { name: /^Carrots: 2 lb, peeled/ })).toBeTruthy();
  });
  test('a file that is too large, or none of a recipe, is refused with what to do', async () => {
    render(<NewScreen />);
    const input = screen.getByLabelText('Recipe file');
    const file = (text: string, size?: number): File => {
      const made = new File([text], 'a.json');
      Object.defineProperty(made, 'text', { value: () => Promise.resolve(text) });
      if (size !== undefined) Object.defineProperty(made, 'size', { value: size });
      return made;
    };
    fireEvent.change(input, { target: { files: [file('', 40_000_000)] } });
    expect(await screen.findByText(/That file has 40 MB/)).toBeTruthy();
    fireEvent.change(input, { target: { files: [file('{"@type":"WebPage"}')] } });
    expect(await screen.findByText(/There is no Recipe of schema.org in it/)).toBeTruthy();
  });
});

describe('the editor', () => {
  test('saves the next version of what was written on', async () => {
    render(<EditScreen />);
    type('Card makes, L', '2,5');
    await press('Save as version 2');
    await waitFor(() => {
      expect(saved.map(({ soup, base }) => [soup.makesL, base])).toEqual([[2.5, 1]]);
    });
    await waitFor(() => {
      expect(mockWent).toEqual(['=/book/pumpkin']);
    });
  });
  test.each<readonly [string, string, string, string]>([
    ['nothing', 'Card makes, L', '0', 'What the card makes must be above 0.'],
    ['a word', 'Card makes, L', 'much', 'What the card makes is a number.'],
    ['no name', 'Name', ' ', 'The name of the soup is empty. Type it, or take the line away.'],
    ['brine', 'Salt, %', '9', 'More than 3 % salt is brine. Check the digits.'],
  ])('%s is not saved, and the sentence says what to do', async (_, field, text, sentence) => {
    render(<EditScreen />);
    type(field, text);
    await press('Save as version 2');
    expect((await within(screen.getByRole('group', { name: 'Not saved' })).findAllByText(sentence)).length).toBeGreaterThan(0);
    expect(saved).toEqual([]);
  });
  test('a negative amount and a word for an amount are said at the line', async () => {
    render(<EditScreen />);
    await press(/^Pumpkin:/);
    type('Amount', 'a lot');
    expect(screen.getByText('Type a number or a range, like 2 or 2-3.')).toBeTruthy();
    await press('Save as version 2');
    expect((await within(screen.getByRole('group', { name: 'Not saved' })).findAllByText(/^Pumpkin: /)).length).toBeGreaterThan(0);
    type('Amount', '3-4');
    await press('Save as version 2');
    await waitFor(() => {
      expect(saved[0]?.soup.ingredients[0]?.amount).toEqual({ low: 3, high: 4, unit: 'lb' });
    });
  });
  test('an amount left empty is not measured, and the checks say that no yield is claimed', async () => {
    render(<EditScreen />);
    await press(/^Pumpkin:/);
    type('Amount', '');
    expect(screen.getByRole('button', { name: /^Pumpkin: not measured/ })).toBeTruthy();
    expect(screen.getByText(/Not measured yet: Pumpkin. No yield is claimed/)).toBeTruthy();
  });
  test('a line is added as on a card, with what the pantry knows; undo takes it back, redo brings it again', async () => {
    render(<EditScreen />);
    type('Add a line, as on a card', '3 leeks, sliced');
    await press('Add the line');
    expect(screen.getByText(/Leeks hides grit and no wash is written/)).toBeTruthy();
    // What was typed settles before it can be undone.
    await waitFor(() => {
      expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Undo' }).disabled).toBe(false);
    });
    await press('Undo');
    expect(screen.queryByRole('button', { name: /^Leeks:/ })).toBeNull();
    await press('Redo');
    expect(screen.getByRole('button', { name: /^Leeks: 3 pieces/ })).toBeTruthy();
  });
  test('arrows on a handle move the step; the same step can be sent earlier and later', () => {
    render(<EditScreen />);
    const order = (): string[] =>
      screen.getAllByRole('button', { name: /^Step \d+:/ }).map((one) => (one.getAttribute('aria-label') ?? '').replace(/^Step \d+: /, '').slice(0, 10));
    const before = order();
    fireEvent.keyDown(screen.getByRole('button', { name: /^Move: Soften/ }), { key: 'ArrowDown' });
    expect(order()).toEqual([before[0], before[2], before[1], ...before.slice(3)]);
    fireEvent.keyDown(screen.getByRole('button', { name: /^Move: Wash/ }), { key: 'ArrowUp' });
    expect(order()).toEqual([before[0], before[2], before[1], ...before.slice(3)]);
  });
  test('who comes second is told, keeps the draft, and may save on top', async () => {
    answer = { kind: 'refused', says: 'Tobi saved version 2 while you were writing.', code: 'soup.conflict' };
    render(<EditScreen />);
    type('Card makes, L', '3');
    await press('Save as version 2');
    expect(await screen.findByText('Tobi saved version 2 while you were writing.')).toBeTruthy();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Card makes, L' }).value).toBe('3');
    const { book } = useKitchen.getState();
    act(() => {
      useKitchen.setState({ book: { ...book, soups: [{ ...pumpkin, version: 2 }] } as unknown as KitchenBook });
    });
    answer = null;
    await press('Save mine on top');
    await waitFor(() => {
      expect(saved.map(({ base }) => base)).toEqual([1, 2]);
    });
  });
  test('a draft of an earlier visit is taken up, and can be thrown away', async () => {
    mockKept.set('soup draft pumpkin', { baseVersion: 1, soup: { ...pumpkin, makesL: 7 } });
    render(<EditScreen />);
    expect(await screen.findByText(/Your draft from before was taken up/)).toBeTruthy();
    await waitFor(() => {
      expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Card makes, L' }).value).toBe('7');
    });
    await press('Start from the saved card');
    await waitFor(() => {
      expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Card makes, L' }).value).toBe('2.4');
    });
    await waitFor(() => {
      expect(mockKept.has('soup draft pumpkin')).toBe(false);
    });
  });
});

describe('the sheet', () => {
  test('scales by litres in the smallest kettle that holds them, with measured minutes, and refuses nonsense', async () => {
    render(<FreeSheetScreen />);
    const litres = screen.getByRole('textbox', { name: 'Litres' });
    fireEvent.change(litres, { target: { value: '24' } });
    expect(screen.getByText('×10 of the card')).toBeTruthy();
    expect(screen.getByRole<HTMLSelectElement>('combobox', { name: 'In' }).value).toBe('k1');
    // 3.5 lb as bought, 70 % left after peeling, ten times.
    expect(screen.getByRole('checkbox', { name: /^Pumpkin, 11\.1 kg/ })).toBeTruthy();
    expect(await screen.findAllByText('18 to 25 min')).toHaveLength(1);
    fireEvent.change(litres, { target: { value: '-3' } });
    expect(screen.getByText('It must be above 0.')).toBeTruthy();
    expect(screen.getByText('The sheet comes when the number is right.')).toBeTruthy();
  });
  test('by what is there: 10 kg of pumpkin bought', () => {
    render(<FreeSheetScreen />);
    fireEvent.change(screen.getByRole('combobox', { name: 'Make it by' }), { target: { value: 'main' } });
    type('Kilograms', '10');
    expect(screen.getByText('15.1 L')).toBeTruthy();
  });
  test('one pot is shared out: each share with its own blend and garnish, and not more than there is', () => {
    const { book } = useKitchen.getState();
    const variants = [
      { id: 'chunky', name: 'chunky', blendShare: 0, adds: [makeLine({ id: 'seeds', name: 'Seeds', stepId: 'finish', amount: { low: 24, high: 24, unit: 'g' } })], leavesOut: [] },
    ];
    useKitchen.setState({ book: { ...book, soups: [{ ...pumpkin, variants }] } as unknown as KitchenBook });
    render(<FreeSheetScreen />);
    type('Litres', '10');
    type('as written, L', '4');
    type('chunky, L', '6');
    const panel = within(screen.getByRole('group', { name: 'Share the pot' }));
    expect(panel.getByText('10 L of 10 L shared out.')).toBeTruthy();
    expect(panel.getByText('2 L through the blender.')).toBeTruthy();
    expect(panel.getByText('Not blended. With 60 g seeds.')).toBeTruthy();
    type('chunky, L', '7');
    expect(panel.getByText(/That is 11 L out of a pot of 10 L/)).toBeTruthy();
    type('chunky, L', '-1');
    expect(panel.getByText('Litres are numbers, 0 or more.')).toBeTruthy();
  });
  test('too thin: a soup without gluten is offered cornflour and never flour, half of it first', () => {
    render(<FreeSheetScreen />);
    type('Litres', '10');
    fireEvent.change(screen.getByRole('combobox', { name: 'It should be' }), { target: { value: 'coating' } });
    const texture = within(screen.getByRole('group', { name: 'Texture' }));
    expect(texture.getByText(/^Cornflour: 165 g stirred into 330 mL of cold liquid\. Re-stir, pour half \(83 g\)/)).toBeTruthy();
    expect(texture.queryByText(/^Plain flour/)).toBeNull();
    fireEvent.change(screen.getByRole('combobox', { name: 'It should be' }), { target: { value: 'pouring' } });
    expect(texture.getByText(/Stir in 2\.5 L of hot water, look, then up to 5 L in all/)).toBeTruthy();
  });
});

describe('a soup', () => {
  test('its label: allergens by list, diets with their causes, nothing called free from anything', () => {
    render(<SoupScreen />);
    fireEvent.click(screen.getByRole('radio', { name: 'Label' }));
    expect(screen.getByText('Not vegan: Butter is from milk and Heavy cream is from milk.')).toBeTruthy();
    expect(screen.getByText(/"Free from" on a label or a menu needs a person/)).toBeTruthy();
  });
  test('its versions when the server cannot be reached', async () => {
    render(<SoupScreen />);
    fireEvent.click(screen.getByRole('radio', { name: 'Versions' }));
    expect(await screen.findByText('away')).toBeTruthy();
  });
  test('a version of a running batch is kept under its own key', () => {
    expect(versionKey('pumpkin', 2)).toBe('pumpkin@2');
  });
});

describe('the pantry', () => {
  test('a refused list is told with its line; a price that is no number is not saved', async () => {
    const put = jest.fn(() => Promise.resolve(null));
    useKitchen.setState({ putPantryCsv: () => Promise.resolve({ trouble: 'Line 2: "cheap" in price is no number.' }), putFood: put });
    render(<PantryScreen />);
    const list = new File(['x'], 'p.csv');
    Object.defineProperty(list, 'text', { value: () => Promise.resolve('x') });
    fireEvent.change(screen.getByLabelText('List to take in'), { target: { files: [list] } });
    expect(await screen.findByText(/"cheap" in price is no number/)).toBeTruthy();
    type('Find', 'butter');
    await press('Butter');
    type('Price', 'dear');
    await press('Save butter');
    expect(screen.getByText('One of these is no number. Nothing was saved.')).toBeTruthy();
    type('Price', '9,5');
    await press('Save butter');
    await waitFor(() => {
      expect(put.mock.calls).toHaveLength(1);
    });
    expect((put.mock.calls as unknown as [Food][])[0]?.[0]).toMatchObject({ id: 'butter', price: { amount: 9.5, per: 'kg' } });
  });
});
