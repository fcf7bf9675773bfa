/** The one person of a studio, until it knows more. */
export const OWNER = 'owner';
