<!-- The layout sends everybody on from here, to where their day begins. -->
