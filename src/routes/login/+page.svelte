<script lang="ts">
  import { Button, InlineNotification, TextInput } from 'carbon-components-svelte';

  const { form } = $props();
</script>

<form class="door" method="POST">
  <h1>Sign in</h1>
  <p class="quiet">What is on the shelf is for those who know the owner’s passphrase.</p>
  {#if form?.why}<InlineNotification kind="error" lowContrast hideCloseButton title="" subtitle={form.why} />{/if}
  <TextInput type="password" labelText="Passphrase" name="passphrase" autocomplete="current-password" required />
  <Button type="submit" size="small">Sign in</Button>
</form>

<style>
  .door {
    max-width: 26rem;
    margin: 12vh auto 0;
    padding: 0 1rem;
    display: grid;
    gap: 1rem;
    justify-items: start;
  }

  .door :global(.bx--form-item) {
    width: 100%;
  }
</style>
