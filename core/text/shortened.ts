/** A text cut to so many characters at most, the last of them saying that more follows. */
export const shortened = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
