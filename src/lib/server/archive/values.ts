import Joi from 'joi';

/** Seconds since 1970, before the year 2100. */
export const seconds = Joi.number().integer().min(0).max(4_102_444_800);
export const base64 = Joi.string().base64();
/** Words of one line; may be empty. */
export const LONGEST_LINE = 500;
export const line = Joi.string().allow('').max(LONGEST_LINE);
/** What is said to come from a time that is not yet is from now. */
export const notLater = (at: number): number => Math.min(at, Math.floor(Date.now() / 1000));
