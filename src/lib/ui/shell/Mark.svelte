<svg viewBox="0 0 32 24" width="27" height="20" aria-hidden="true" class="text-saddle">
  <g fill="none" stroke="currentColor" stroke-width="2.6" stroke-linejoin="round">
    <path d="M2 9h11v8a5 5 0 0 1-5 5H7a5 5 0 0 1-5-5z" fill="currentColor" />
    <path d="M19 9h11v8a5 5 0 0 1-5 5h-1a5 5 0 0 1-5-5z" />
    <path d="M7.500 9c0-9 17-9 17 0" />
  </g>
</svg>
