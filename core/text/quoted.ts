/** A name in quotation marks; one that has its own, as codes in the participants' words do, keeps to those. */
export const quoted = (name: string): string => (/^["“„«‘'].*["”“»’']$/u.test(name) ? name : `“${name}”`);
