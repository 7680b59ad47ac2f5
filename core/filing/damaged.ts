/** What is said of a file in which something no reader knows of went wrong: what a program says of it is for programmers. */
export const DAMAGED =
  'Something in it cannot be understood: it is damaged, or not what its name says. Open it in the program it comes from, save it again and try once more.';
