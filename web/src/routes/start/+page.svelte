<!-- The guided start takes the whole screen: the layout shows it. -->
