import { Button, type ButtonProps } from '@mantine/core'
import { useClipboard } from '@mantine/hooks'

/** Copies words, and says so; where a browser lets no page copy, as on the shop's own network, it says that instead. */
export function CopyIt({ value, ...look }: { value: string } & Pick<ButtonProps, 'variant' | 'size'>) {
  const { copy, copied, error } = useClipboard()
  return (
    <>
      <Button {...look} onClick={() => copy(value)}>
        {copied ? 'Copied' : 'Copy it'}
      </Button>
      <span role="status" className="quiet">
        {error && 'This browser lets no page copy here: mark it and copy it by hand.'}
      </span>
    </>
  )
}
