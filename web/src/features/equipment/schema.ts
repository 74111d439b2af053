/** A JSON Schema as far as a form is made of it. */
export interface Schema {
  readonly $ref?: string
  readonly $defs?: Readonly<Record<string, Schema>>
  readonly anyOf?: readonly Schema[]
  readonly type?: string
  readonly title?: string
  readonly enum?: readonly string[]
  readonly oneOf?: readonly { readonly const: string; readonly title: string }[]
  readonly items?: Schema
  readonly prefixItems?: readonly Schema[]
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
  readonly additionalProperties?: Schema | boolean
  readonly default?: unknown
}

/** A thing of a class as its file says it. */
export type Item = Record<string, unknown>

export type Shape =
  | 'figure'
  | 'group'
  | 'list'
  | 'choices'
  | 'words'
  | 'numbers'
  | 'map'
  | 'choice'
  | 'switch'
  | 'number'
  | 'text'

/** What a field is: its own schema with what it refers to, whether it may be left out, and how it is filled in. */
export interface Field {
  readonly name: string
  readonly title: string
  readonly schema: Schema
  readonly shape: Shape
  readonly isOptional: boolean
}

const resolved = (schema: Schema, defs: Schema['$defs']): Schema => {
  const found = schema.$ref ? defs?.[schema.$ref.replace('#/$defs/', '')] : undefined
  return found ? { ...found, title: schema.title ?? found.title } : schema
}

/** Of a schema that lets a thing be left out as null, the thing. */
function bare(schema: Schema, defs: Schema['$defs']): { schema: Schema; isOptional: boolean } {
  const some = schema.anyOf?.filter(({ type }) => type !== 'null')
  const isOptional = some !== undefined && some.length < (schema.anyOf?.length ?? 0)
  const one = isOptional && some.length === 1 && some[0] ? some[0] : schema
  return { schema: resolved(one, defs), isOptional }
}

function shapeOf(schema: Schema, defs: Schema['$defs']): Shape {
  if (schema.anyOf?.some(({ type }) => type === 'number')) return 'figure'
  if (schema.enum || schema.oneOf) return 'choice'
  if (schema.type === 'boolean') return 'switch'
  if (schema.type === 'number' || schema.type === 'integer') return 'number'
  if (schema.type === 'object') return schema.properties ? 'group' : 'map'
  if (schema.type !== 'array') return 'text'
  const item = resolved(schema.items ?? schema.prefixItems?.[0] ?? {}, defs)
  if (item.properties) return 'list'
  if (item.enum || item.oneOf) return 'choices'
  return item.type === 'number' || item.type === 'integer' ? 'numbers' : 'words'
}

/** The fields of an object, in the order of its description. */
export function fieldsOf(schema: Schema, defs: Schema['$defs']): Field[] {
  return Object.entries(schema.properties ?? {}).map(([name, given]) => {
    const { schema: own, isOptional } = bare(given, defs)
    return { name, title: given.title ?? name, schema: own, shape: shapeOf(own, defs), isOptional }
  })
}

/** What there is to choose from, each with its name. */
export const optionsOf = (schema: Schema) =>
  schema.oneOf?.map((item) => [item.const, item.title] as const) ??
  (schema.enum ?? []).map((item) => [item, item] as const)

/** What the entries of a list are, each an object or one of several words. */
export const itemOf = (schema: Schema, defs: Schema['$defs']) => resolved(schema.items ?? {}, defs)

const MODE_IN = { id: 'mic', label: 'mic', signal: 'mic', impedance_ohm: 3000, full_scale_dbu: 0 }
const MODE_OUT = { id: 'line', label: 'line', signal: 'line', full_scale_dbu: 10 }

/** What a new entry of a list, or a part that was not there, begins with; each is then changed. */
export const BEGINS: Readonly<Record<string, () => Item>> = {
  inputs: () => ({
    id: 'in',
    label: 'in',
    plug: { connector: 'xlr3', gender: 'female' },
    circuit: 'balanced',
    modes: [MODE_IN],
  }),
  outputs: () => ({
    id: 'out',
    label: 'out',
    plug: { connector: 'xlr3', gender: 'male' },
    circuit: 'balanced',
    modes: [MODE_OUT],
  }),
  buses: () => ({ id: '1', label: '1', recorded: true, inputs: [] }),
  gain: () => ({ minimum_db: 0, maximum_db: 40, step_db: 1, default_db: 20 }),
  digital_gain: () => ({ minimum_db: -20, maximum_db: 20, step_db: 1, default_db: 0 }),
  trim: () => ({ minimum_db: -30, maximum_db: 0, step_db: 1, default_db: 0 }),
  capsule: () => ({ sensitivity_mv_per_pa: 10, max_db_spl: 130, self_noise_db_a: 18, needs: ['p48'] }),
  booster: () => ({ needs: ['p48'] }),
  playback: () => ({ average_dbfs: -18, peak_dbfs: -1 }),
  law: () => ({ position_db: 0, gain_db: 0 }),
}

/** A new position of a switch, of an input or of an output. */
export const newMode = (isInput: boolean) => ({
  ...(isInput ? MODE_IN : MODE_OUT),
  id: 'other',
  label: 'other',
})
