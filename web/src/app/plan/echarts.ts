import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

echarts.use([AriaComponent, CustomChart, GridComponent, LineChart, ScatterChart, SVGRenderer, TooltipComponent]);

export { echarts };
