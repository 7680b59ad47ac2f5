import { Bench } from '@core/testing/make';
import { drawn } from '../../testing/component-with-study';
import { NumberPart } from './number-part';

describe('a number in a sentence', () => {
  const draw = async (inputs: Record<string, unknown>) => {
    const part = await drawn(NumberPart, new Bench(), { label: 'How many', value: 3, ...inputs });
    const given: number[] = [];
    part.fixture.componentInstance.changed.subscribe((value) => given.push(value));
    const box = part.find<HTMLInputElement>('input');
    const type = async (text: string) => {
      await part.type(box, text, 'change');
      return [given.at(-1), box.value];
    };
    return type;
  };

  it('keeps within its bounds, whole, whatever is typed, and shows what it took', async () => {
    const type = await draw({ least: 1, most: 10 });
    expect(await type('7')).toEqual([7, '7']);
    expect(await type('2.9')).toEqual([2, '2']);
    expect(await type('99')).toEqual([10, '10']);
    expect(await type('-4')).toEqual([1, '1']);
    expect(await type('')).toEqual([1, '1']);
  });

  it('may be broken where that is said', async () => {
    const type = await draw({ most: 100, broken: true });
    expect(await type('2.5')).toEqual([2.5, '2.5']);
  });
});
