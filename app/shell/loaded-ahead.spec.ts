import { TestBed } from '@angular/core/testing';
import { provideRouter, Router, type Route } from '@angular/router';
import { lastValueFrom, of } from 'rxjs';
import { routes } from '../routes';
import { LoadedAhead } from './loaded-ahead';

describe('what is loaded ahead', () => {
  async function loaded(some: readonly Route[]): Promise<string[]> {
    const paths: string[] = [];
    for (const route of some) {
      await lastValueFrom(
        TestBed.inject(LoadedAhead).preload(route, () => of(paths.push(route.path!))),
        { defaultValue: null },
      );
      paths.push(...(await loaded(route.children ?? [])));
    }
    return paths;
  }

  it('is where a study that was opened is shown first, and no other place', async () => {
    expect(await loaded(routes)).toEqual(['study/:studyId', 'overview']);
  });

  it('is nothing where one has gone on before there was rest for it', async () => {
    TestBed.configureTestingModule({ providers: [provideRouter([{ path: '**', children: [] }])] });
    const ahead = TestBed.inject(LoadedAhead);
    let loads = 0;
    const loading = lastValueFrom(
      ahead.preload({ path: 'study', data: { ahead: true } }, () => of(++loads)),
      { defaultValue: null },
    );
    await TestBed.inject(Router).navigateByUrl('/study/one/reading');
    await loading;
    expect(loads).toBe(0);
  });

  it('waits until what is looked at is drawn', async () => {
    let loads = 0;
    const loading = lastValueFrom(TestBed.inject(LoadedAhead).preload({ path: 'study', data: { ahead: true } }, () => of(++loads)));
    expect(loads).toBe(0);
    await loading;
    expect(loads).toBe(1);
  });

  it('is nothing where another place is looked at already', async () => {
    TestBed.configureTestingModule({ providers: [provideRouter([{ path: '**', children: [] }])] });
    await TestBed.inject(Router).navigateByUrl('/study/one/reading');
    expect(await loaded(routes)).toEqual([]);
  });
});
