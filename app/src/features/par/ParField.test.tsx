import { act, fireEvent, render, screen } from '@testing-library/react';
import { useKitchen } from '../../state/kitchen';
import { ParField } from './ParField';

const put = jest.fn<Promise<string | null>, [string, number]>();
beforeEach(() => {
  put.mockReset().mockResolvedValue(null);
  useKitchen.setState({ putPar: put });
});

const field = (): HTMLInputElement => screen.getByRole('textbox', { name: 'Par, Beet, litres' });
async function leaveWith(text: string): Promise<void> {
  await act(async () => {
    fireEvent.change(field(), { target: { value: text } });
    fireEvent.blur(field());
    await Promise.resolve();
  });
}

describe('the par field', () => {
  test('puts a new par when it is left', async () => {
    render(<ParField soupId="beet" soupName="Beet" parL={9} />);
    await leaveWith('12,5');
    expect(put.mock.calls).toEqual([['beet', 12.5]]);
  });
  test.each([
    ['-3', 'A par cannot be below 0 L'],
    ['abc', 'A par is a number of litres'],
  ])('says what is wrong with %p, tied to the field, puts nothing and keeps what was typed', async (text, says) => {
    render(<ParField soupId="beet" soupName="Beet" parL={9} />);
    await leaveWith(text);
    expect(put).not.toHaveBeenCalled();
    expect(field().value).toBe(text);
    expect(field().getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById(field().getAttribute('aria-describedby') ?? '')?.textContent).toContain(says);
  });
  test('keeps what was typed when the server does not take it', async () => {
    put.mockResolvedValue('That soup is not in the book.');
    const { rerender } = render(<ParField soupId="beet" soupName="Beet" parL={9} />);
    await leaveWith('14');
    rerender(<ParField soupId="beet" soupName="Beet" parL={9} />);
    expect([field().value, screen.getByText(/not in the book/).textContent]).toEqual(['14', 'That soup is not in the book.']);
  });
  test('puts nothing when nothing changed', async () => {
    render(<ParField soupId="beet" soupName="Beet" parL={9} />);
    await leaveWith('9.0');
    expect(put).not.toHaveBeenCalled();
  });
});
