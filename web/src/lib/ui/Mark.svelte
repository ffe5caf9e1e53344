<!-- A fid opening the strands of a rope. -->
<svg viewBox="0 0 24 24" width="24" height="24" aria-hidden="true">
  <path d="M3 6.500c5 0 5.500 4 9 5.500s4 5.500 9 5.500" class="stroke-sea fill-none" stroke-width="4" stroke-linecap="round" />
  <path d="M19.600 3.200a2.200 2.200 0 0 1 1.200 3.100L4 21.500 3 20.600l13.400-16.500a2.200 2.200 0 0 1 3.200-.9z" class="fill-ink" />
</svg>
