#version 330 core
// Adds a frame to those before it.
in vec2 place;
uniform sampler2D frame;
uniform sampler2D frame_around;
uniform sampler2D frame_guide;
layout(location = 0) out vec4 colour;
layout(location = 1) out vec4 around;
layout(location = 2) out vec4 guide;

void main() {
    ivec2 at = ivec2(gl_FragCoord.xy);
    // A single far too bright pixel would sparkle for long.
    vec4 c = texelFetch(frame, at, 0);
    colour = vec4(min(c.rgb, vec3(60.0)), c.a);
    around = texelFetch(frame_around, at, 0);
    guide = texelFetch(frame_guide, at, 0);
}
