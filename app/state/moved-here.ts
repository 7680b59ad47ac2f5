import { Injectable } from '@angular/core';
import { Subject } from 'rxjs';
import type { Change } from '@core/change/change';
import { lastPlaces } from './last-places';
import { movesIn, type MovesIn } from '@core/change/moves-in';

/**
 * Tells what has moved or gone in the open study, whoever did it: for what remembers things of the study without being
 * part of it. What is in the store follows in the reducer.
 */
@Injectable({ providedIn: 'root' })
export class MovedHere {
  private readonly told = new Subject<MovesIn>();
  readonly moves = this.told.asObservable();

  tell(change: Change): void {
    const moves = movesIn(change);
    if (!moves) return;
    lastPlaces.follow(moves.at);
    this.told.next(moves);
  }
}
