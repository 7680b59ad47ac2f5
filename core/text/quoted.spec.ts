import { quoted } from './quoted';

describe('a name in quotation marks', () => {
  it('has them once, whoever put them', () => {
    expect(['Worry', '“No boat today”', '"No boat"', '„Kein Schiff“', '« Pas de bateau »', 'The “quick” one', ''].map(quoted)).toEqual([
      '“Worry”',
      '“No boat today”',
      '"No boat"',
      '„Kein Schiff“',
      '« Pas de bateau »',
      '“The “quick” one”',
      '“”',
    ]);
  });
});
