"""Light: sun, sky and lamps as one picture of radiance that every picture is lit by. Luminance in cd/m²."""
