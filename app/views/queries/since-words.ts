const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });

/** A day as it is said in passing: “5 Jan”. @param at milliseconds since 1970 */
export const dayOf = (at: number): string => DAY.format(at);

/** What has changed since an answer was seen: “3 new, 0 gone since 5 Jan”. @param at milliseconds since 1970 */
export const sinceWords = (at: number, fresh: number, gone: number): string =>
  fresh === 0 && gone === 0
    ? `nothing new since ${dayOf(at)}`
    : `${fresh.toLocaleString()} new, ${gone.toLocaleString()} gone since ${dayOf(at)}`;
