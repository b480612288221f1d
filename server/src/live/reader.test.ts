import { oneReader } from './reader';

/** A reader whose readings end when they are told to, with whether there is more. */
function held() {
  const ends: ((more: boolean) => void)[] = [];
  const reader = oneReader(() => new Promise<boolean>((end) => ends.push(end)));
  const end = async (more: boolean): Promise<void> => {
    ends.at(-1)?.(more);
    await new Promise(setImmediate);
  };
  return { reader, end, count: () => ends.length };
}

test('what is written while it reads is read too, although that reading had found something and no more', async () => {
  const { reader, end, count } = held();
  void reader();
  void reader();
  void reader();
  expect(count()).toBe(1);
  await end(false);
  expect(count()).toBe(2);
  await end(false);
  expect(count()).toBe(2);
});

test('it goes on while there is more, and reads anew when it is asked later', async () => {
  const { reader, end, count } = held();
  void reader();
  await end(true);
  await end(true);
  await end(false);
  expect(count()).toBe(3);
  void reader();
  expect(count()).toBe(4);
});

test('a reading that fails is told to whoever asked, and the next is made', async () => {
  let fails = true;
  const reader = oneReader(() => (fails ? Promise.reject(new Error('away')) : Promise.resolve(false)));
  await expect(reader()).rejects.toThrow('away');
  fails = false;
  await expect(reader()).resolves.toBeUndefined();
});
