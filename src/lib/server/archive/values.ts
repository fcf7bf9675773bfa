import Joi from 'joi';

/** Seconds since 1970. */
export const seconds = Joi.number().integer().min(0);
export const base64 = Joi.string().base64();
/** Words of one line; may be empty. */
export const line = Joi.string().allow('').max(500);
