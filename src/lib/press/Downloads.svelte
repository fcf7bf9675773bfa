<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import Menu from '../frame/Menu.svelte';
  import { api } from '../api';
  import { saveFile } from '../save-file';
  import { sentenceOf } from '../workspace/latest';

  /** `disabled` while not all is saved. */
  const { reading, disabled }: { reading: number; disabled: boolean } = $props();

  const FILES = [
    ['musicxml', 'MusicXML'],
    ['mxl', 'MusicXML, compressed (.mxl)'],
    ['mei', 'MEI'],
    ['mid', 'MIDI, as planned'],
    ['literal.mid', 'MIDI, to the letter'],
    ['svg.zip', 'Pages as SVG pictures (.zip)'],
    ['html', 'Text as HTML'],
    ['md', 'Text as Markdown']
  ] as const;

  let stage = $state<string | null>(null);
  let fault = $state('');

  /** Makes the PDF on the server, says how far it is, and saves it. */
  async function savePdf(): Promise<void> {
    stage = 'asking for the PDF';
    fault = '';
    try {
      for await (const line of api.pdf(reading)) {
        if ('stage' in line) stage = line.stage;
        else
          saveFile(
            Uint8Array.from(atob(line.file), (c) => c.charCodeAt(0)),
            line.name,
            line.type
          );
      }
    } catch (e) {
      fault = sentenceOf(e);
    } finally {
      stage = null;
    }
  }
</script>

<Button size="small" kind="tertiary" disabled={disabled || stage !== null} on:click={savePdf} data-testid="download-pdf">PDF</Button>
<Menu label="Files">
  {#each FILES as [format, name] (format)}
    <a
      href={disabled ? undefined : api.fileAddress('reading', reading, format)}
      aria-disabled={disabled}
      download
      data-testid="download-{format}">{name}</a
    >
  {/each}
</Menu>
{#if stage}<span class="quiet" role="status" data-testid="pdf-stage">PDF: {stage} …</span>{/if}
{#if fault}<span role="alert">{fault}</span>{/if}
