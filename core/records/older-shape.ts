/** How fields written by an earlier version become today's, by type. Apart from the types' files: a phone upgrades its copy without the schemas. */
const UPGRADES: Readonly<Record<string, (fields: Record<string, unknown>) => Record<string, unknown>>> = {
  // Once a stall had one connector with one rating.
  stall: (fields) => {
    if (fields.outlets !== undefined || fields.connector === undefined) return fields;
    const { connector, ratedKW, ...rest } = fields;
    return { ...rest, outlets: [{ connector, ratedKW }] };
  },
  // Once a car had one connector.
  car: (fields) => {
    if (fields.connectors !== undefined || fields.connector === undefined) return fields;
    const { connector, ...rest } = fields;
    return { ...rest, connectors: [connector] };
  },
};

/** Turns fields written by an earlier version into today's shape; others, and those of a type not known here, are returned as they are. */
export const fromOlderShape = (type: string, fields: Record<string, unknown>): Record<string, unknown> =>
  Object.hasOwn(UPGRADES, type) ? (UPGRADES[type]?.(fields) ?? fields) : fields;
