#version 330 core
in vec3 in_position;   // metres, z up
in vec3 in_normal;
#ifndef SIDED
in vec3 in_uv;         // repeats times w, v up, and w
#endif
uniform mat4 view_projection;
uniform mat4 light_projection;
uniform mat4 open_projection[3];
uniform vec2 offset_m;        // off the face along its normal, so that it does not shadow itself: sun, sky
out vec3 position;
out vec3 normal;
out vec3 uvw;
out vec4 in_light;
#ifndef MOVING
out vec3 in_open[3];
#endif

void main() {
    position = in_position;
    normal = in_normal;
#ifdef SIDED
    uvw = vec3(0.0, 0.0, 1.0);
#else
    uvw = in_uv;
#endif
    vec3 n = normalize(in_normal);
    in_light = light_projection * vec4(in_position + n * offset_m.x, 1.0);
#ifndef MOVING
    for (int k = 0; k < 3; ++k) in_open[k] = (open_projection[k] * vec4(in_position + n * offset_m.y, 1.0)).xyz;
#endif
    gl_Position = view_projection * vec4(in_position, 1.0);
}
