<script lang="ts">
  import { Button, InlineNotification, PasswordInput } from 'carbon-components-svelte';

  const { form } = $props();
</script>

<form class="door" method="POST">
  <h1>Sign in</h1>
  <p class="quiet">This studio is open to others on the network, so its owner has a passphrase.</p>
  {#if form?.why}<InlineNotification kind="error" lowContrast hideCloseButton title="" subtitle={form.why} />{/if}
  <PasswordInput labelText="Passphrase" name="passphrase" autocomplete="current-password" required />
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
