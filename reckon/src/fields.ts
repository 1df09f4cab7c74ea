import { array, boolean, mixed, number, object, string, type ObjectShape } from 'yup'

/** A figure by its name. */
export const figure = (label: string) => number().label(label)

/** An object that refuses fields it does not know. */
export const only = <S extends ObjectShape>(shape: S) =>
  object(shape).noUnknown('${path} has a field that is not known').required()

export { array, boolean, mixed, number, string }
