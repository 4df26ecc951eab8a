/** UUID text in lower case with hyphens, of a version and variant that RFC 9562 defines: the one pattern of an id. */
export const ID_PATTERN = /^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/;
/** Why a text is refused as an id. */
export const NOT_AN_ID = 'must be a UUID in lower case';

/** True for the text of an id; whatever else stands in an address or a body is none. */
export const isId = (value: unknown): value is string => typeof value === 'string' && ID_PATTERN.test(value);
