<script lang="ts">
  import { page } from '$app/state';
</script>

<div class="fault">
  <h1>{page.status === 404 ? 'Not here' : 'This did not work'}</h1>
  <p>{page.error?.message}</p>
  <p><a href="/">Back to the shelf</a></p>
</div>

<style>
  .fault {
    padding: 3rem;
  }
</style>
