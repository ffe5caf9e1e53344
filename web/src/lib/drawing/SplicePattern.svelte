<!-- What work done is filled with in every bar below: once, since a pattern for each is what takes long to draw. -->
<defs>
  <pattern id="splice" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="skewX(-30)">
    <rect width="7" height="7" class="fill-sea" />
    <rect width="2" height="7" class="fill-sea-tint" />
  </pattern>
</defs>
