#version 330 core
uniform vec4 tint;
layout(location = 0) out vec4 colour;
layout(location = 1) out vec4 around;
layout(location = 2) out vec4 guide;
void main() {
    colour = tint;
    around = vec4(0.0, 0.0, 0.0, tint.a);
    guide = vec4(0.0);
}
