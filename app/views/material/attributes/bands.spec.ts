import { readBands } from './bands';

describe('bands', () => {
  it('are named by where they begin', () => {
    expect(readBands('20, 40', 'number')).toEqual({ bounds: [20, 40], names: ['under 20', '20 to under 40', 'from 40'] });
    expect(readBands('2025-07-01', 'date')!.names).toEqual(['before 2025-07-01', 'from 2025-07-01']);
  });

  it('must ascend and be readable', () => {
    for (const bad of ['', 'young, old', '40, 20', '20, 20']) expect(readBands(bad, 'number')).withContext(bad).toBeNull();
  });
});
