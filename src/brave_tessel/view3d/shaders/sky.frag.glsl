#version 330 core
// The sky behind everything.
in vec2 place;
uniform sampler2D sharp;       // octahedral, exposed
uniform mat3 ray;        // columns: right, up and forward, scaled to the picture's edges
uniform vec3 sun;
uniform vec3 sun_glow;   // radiance of its disc
uniform float sun_cos;
layout(location = 0) out vec4 colour;
layout(location = 1) out vec4 around;
layout(location = 2) out vec4 guide;

void main() {
    vec3 way = normalize(ray * vec3(place, 1.0));
    vec3 d = way / (abs(way.x) + abs(way.y) + abs(way.z));
    vec2 p = d.z >= 0.0 ? d.xy : (1.0 - abs(d.yx)) * vec2(d.x >= 0.0 ? 1.0 : -1.0, d.y >= 0.0 ? 1.0 : -1.0);
    float side = float(textureSize(sharp, 0).x);
    p = ((p * 0.5 + 0.5) * (side - 2.0) + 1.0) / side;
    colour = vec4(textureLod(sharp, p, 0.0).rgb, 1.0);
    if (dot(way, sun) > sun_cos) colour.rgb += sun_glow;
    around = vec4(0.0, 0.0, 0.0, 1.0);
    guide = vec4(0.0, 0.0, 0.0, 1e4);
}
