import { Injectable } from '@angular/core';
import { BaseRouteReuseStrategy, destroyDetachedRouteHandle, type ActivatedRouteSnapshot, type DetachedRouteHandle } from '@angular/router';

/**
 * Keeps the views whose route says `kept` alive while another view of the study is shown: a large text or a long
 * codebook is then shown again without being made anew. One of each; all go when the study is left.
 */
@Injectable({ providedIn: 'root' })
export class KeptViews extends BaseRouteReuseStrategy {
  private readonly kept = new Map<string, DetachedRouteHandle>();

  override shouldDetach(route: ActivatedRouteSnapshot): boolean {
    return nameOf(route) !== undefined;
  }

  override store(route: ActivatedRouteSnapshot, handle: DetachedRouteHandle | null): void {
    const name = nameOf(route);
    if (name === undefined) return;
    const before = this.kept.get(name);
    if (handle) this.kept.set(name, handle);
    else this.kept.delete(name);
    if (handle && before && before !== handle) destroyDetachedRouteHandle(before);
  }

  override shouldAttach(route: ActivatedRouteSnapshot): boolean {
    return this.retrieve(route) !== null;
  }

  override retrieve(route: ActivatedRouteSnapshot): DetachedRouteHandle | null {
    return this.kept.get(nameOf(route) ?? '') ?? null;
  }

  /** Ends what is kept: the study is left. */
  clear(): void {
    for (const handle of this.kept.values()) destroyDetachedRouteHandle(handle);
    this.kept.clear();
  }
}

const nameOf = (route: ActivatedRouteSnapshot): string | undefined => route.routeConfig?.data?.['kept'] as string | undefined;
