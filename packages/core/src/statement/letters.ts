/** How words begin: labels are kept in sentence case, and stand in the middle of sentences too. */
export const sentenceCase = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
export const lowerCase = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
