/** Words by which a part is told to stand out: “p espressivo” is louder than an accompanying p. Handbook 5.7; common usage. */
export const TO_THE_FRONT = /\b(espress\w*|cantabile|cantando|solo|marcato il canto|en dehors|hervor\w*|in evidenza)\b/i;
