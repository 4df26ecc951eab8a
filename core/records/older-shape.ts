/**
 * Turns fields written by an earlier version into today's shape; others are returned as they are.
 * A stall once had one connector with one rating, a car one connector.
 */
export function fromOlderShape(type: string, fields: Record<string, unknown>): Record<string, unknown> {
  if (type === 'stall' && fields.outlets === undefined && fields.connector !== undefined) {
    const { connector, ratedKW, ...rest } = fields;
    return { ...rest, outlets: [{ connector, ratedKW }] };
  }
  if (type === 'car' && fields.connectors === undefined && fields.connector !== undefined) {
    const { connector, ...rest } = fields;
    return { ...rest, connectors: [connector] };
  }
  return fields;
}
