/**
 * What stands at a place of a list, where the reckoning has seen to it that there is one.
 *
 * @throws RangeError where there is none: a fault of the reckoning, not of its input
 */
export function nth<T>(list: ArrayLike<T>, index: number): T {
  const value = list[index]
  if (value === undefined) throw new RangeError(`There is no place ${index} in a list of ${list.length}.`)
  return value
}
