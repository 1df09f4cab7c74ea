import { Button, Group, Radio, Stack } from '@mantine/core'
import { Figure } from '../../parts/Figure.tsx'
import type { Scale, ScaleWay, Tapped } from './useScale.ts'

const WAYS: [ScaleWay, string][] = [
  ['unaided', 'by its rod, or by the arc it moves on'],
  ['suspension', 'from where it hangs, seen in the picture'],
  ['scale', 'by two strokes of an arc scale in the picture'],
  ['length', 'by its length, and two points a known distance apart'],
]
const TAP_WORDS: Record<Tapped, string> = {
  bob: 'Tap the bob, or a bright mark on it.',
  suspension: 'Tap where it hangs.',
  left: 'Tap the left of the two.',
  right: 'Tap the right of the two.',
}

/** What a person can point at where the picture alone does not do. */
export function ScaleFields({ scale, on }: { scale: Scale; on: boolean }) {
  return (
    <>
      <Radio.Group
        mt="lg"
        label="Its angle is told"
        value={scale.way}
        onChange={(way) => scale.choose(WAYS.find(([w]) => w === way)?.[0] ?? 'unaided')}
      >
        <Stack gap="xs" mt="xs">
          {WAYS.map(([value, label]) => (
            <Radio key={value} value={value} label={label} disabled={!on} />
          ))}
        </Stack>
      </Radio.Group>
      {scale.way === 'scale' && (
        <Figure
          mt="sm"
          label="Between the two strokes"
          unit="°"
          min={0.5}
          max={90}
          value={scale.betweenDeg}
          onKeep={(betweenDeg) => scale.setFigures({ betweenDeg })}
        />
      )}
      {scale.way === 'length' && (
        <Group align="end">
          <Figure
            mt="sm"
            label="Between the two points"
            unit="mm"
            min={1}
            max={5000}
            value={scale.betweenMm}
            onKeep={(betweenMm) => scale.setFigures({ betweenMm })}
          />
          <Figure
            mt="sm"
            label="From where it hangs to the bob’s middle"
            unit="mm"
            min={10}
            max={5000}
            value={scale.lengthMm}
            onKeep={(lengthMm) => scale.setFigures({ lengthMm })}
          />
        </Group>
      )}
      {scale.asked !== null && <p role="status">{TAP_WORDS[scale.asked]}</p>}
      {scale.sentence !== '' && <p role="alert">{scale.sentence}</p>}
      <Group mt="sm">
        <Button variant="default" disabled={!on} onClick={() => scale.ask('bob')}>
          It follows the wrong thing: tap the bob
        </Button>
      </Group>
    </>
  )
}
